<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Problem;

/**
 * Takes every card in the readers that is surely one of a day: new, dated on it, of a known device, and nobody else's. A
 * card of which anything has to be asked first is left in its reader, and named.
 */
final class OffloadAll
{
    public function __construct(private readonly Readers $bench, private readonly OffloadCard $offload) {}

    /**
     * @param  list<string>|null  $to  keys of stores
     * @return array{started: list<string>, asked: list<array{name: string, why: string}>}
     */
    public function __invoke(Production $production, User $user, ShootDay $day, ?array $to = null): array
    {
        $cards = Card::query()
            ->with(['device', 'copies', 'day'])
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->get();
        $started = $asked = [];
        foreach (self::of($this->bench->look($production, $this->bench->volumes($production), $cards), $day) as $volume) {
            if ($volume['ask'] !== null) {
                $asked[] = ['name' => $volume['name'], 'why' => $volume['ask']];

                continue;
            }
            $device = $volume['device'] === null ? null : $production->devices()->where('letter', $volume['device'])->first();
            try {
                ($this->offload)($production, $user, $day, $volume['name'], $volume['roll'], $device, to: $to);
                $started[] = $volume['name'];
            } catch (Problem $refusal) {
                $asked[] = ['name' => $volume['name'], 'why' => $refusal->getMessage()];
            }
        }

        return ['started' => $started, 'asked' => $asked];
    }

    /**
     * The new ones of a day: those dated on it, and undated ones unless the readers hold another day's only.
     *
     * @param  list<array<string, mixed>>  $volumes  as the bench sees them
     * @return list<array<string, mixed>>
     */
    public static function of(array $volumes, ShootDay $day): array
    {
        $new = array_filter($volumes, static fn(array $volume): bool => $volume['state'] !== 'seen');
        $days = array_filter(array_column($new, 'day'), static fn(?int $number): bool => $number !== null);
        $takesUndated = $days === [] || in_array($day->number, $days, true);

        return array_values(
            array_filter(
                $new,
                static fn(array $volume): bool => $volume['day'] === $day->number || ($volume['day'] === null && $takesUndated),
            ),
        );
    }
}
