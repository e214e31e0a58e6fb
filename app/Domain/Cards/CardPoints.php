<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Points\OpenPoint;
use App\Domain\Points\PointSource;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\ShootDay;
use App\Models\Store;
use App\Models\User;

/** What of a day's cards a person has to look at: faults, copies that changed, a device that has less than it should. */
final class CardPoints implements PointSource
{
    public function __construct(
        private readonly ClipCheck $check,
        private readonly CheckCard $verify,
        private readonly OffloadCard $offload,
        private readonly Imports $imports,
    ) {}

    public function of(ShootDay $day): array
    {
        return [...$this->cards($day), ...$this->clipCheck($day)];
    }

    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void
    {
        $card = Card::query()
            ->where('ulid', $point->place['card'] ?? '')
            ->firstOrFail();
        match ($step) {
            'check' => ($this->verify)($card, $user),
            'retry' => $this->imports->again($card, $user) ??
                ($this->offload)($day->production, $user, $day, $card->volume, $card->roll, $card->device),
            default => throw new \LogicException("No step $step"),
        };
    }

    /** @return list<OpenPoint> */
    private function cards(ShootDay $day): array
    {
        $points = [];
        $stores = Store::query()->where('production_id', $day->production_id)->pluck('name', 'key');
        foreach (Card::query()->with('copies')->where('shoot_day_id', $day->id)->whereNull('away_at')->get() as $card) {
            foreach ($card->copies->reject(static fn(CardCopy $copy): bool => $copy->isWhole()) as $copy) {
                $names = [
                    ...$copy->differences['missing'],
                    ...$copy->differences['altered'],
                    ...array_column($copy->differences['renamed'], 'from'),
                    ...$copy->differences['problems'],
                ];
                $points[] = new OpenPoint(
                    "copy.$card->ulid.$copy->store",
                    'fault',
                    sprintf('%s on %s is not as it was copied', $card->roll, $stores[$copy->store] ?? $copy->store),
                    implode(', ', array_map('basename', array_slice($names, 0, 3))) .
                        (count($names) > 3 ? sprintf(' and %d more', count($names) - 3) : '') .
                        '.',
                    ['stage' => 'cards', 'card' => $card->ulid],
                    [['name' => 'check', 'label' => 'Verify again']],
                );
            }
        }
        foreach (
            Card::query()
                ->where('shoot_day_id', $day->id)
                ->whereNull('away_at')
                ->whereIn('state', ['fault', 'stopped'])
                ->get()
            as $card
        ) {
            $fault = $card->faults[0] ?? null;
            $points[] = new OpenPoint(
                "card.$card->ulid",
                'fault',
                "$card->roll cannot be released",
                sprintf(
                    '%s %d of %d files are safe twice.',
                    $fault === null ? 'Its offload was stopped.' : self::faultOf($fault),
                    $card->verified_files,
                    $card->files,
                ),
                ['stage' => 'cards', 'card' => $card->ulid],
                [['name' => 'retry', 'label' => 'Try again']],
            );
        }

        return $points;
    }

    /** @param  array{path: string, reason: string, byte?: int}  $fault */
    private static function faultOf(array $fault): string
    {
        $where = basename($fault['path']) . (isset($fault['byte']) ? sprintf(', byte %s', number_format($fault['byte'], 0, '.', ' ')) : '');

        return $where === '' ? $fault['reason'] : "$where: {$fault['reason']}";
    }

    /** @return list<OpenPoint> */
    private function clipCheck(ShootDay $day): array
    {
        // The figures are part of the key: a difference that was settled comes back when another card changes it.
        return array_map(
            static fn(array $one): OpenPoint => new OpenPoint(
                'clips.' . $one['device'] . '.' . hash('xxh64', $one['evidence']),
                'warning',
                $one['title'],
                $one['evidence'],
                ['stage' => 'cards'],
                [['name' => 'settle', 'label' => 'It is right so']],
                awaits: ['offload', 'catalogue'],
            ),
            $this->check->of($day)['differences'],
        );
    }
}
