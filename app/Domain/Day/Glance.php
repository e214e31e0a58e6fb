<?php

declare(strict_types=1);

namespace App\Domain\Day;

use App\Domain\Cards\Readers;
use App\Domain\Points\OpenPoints;
use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use App\Support\LiveBus;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\Cache;

/** A production as it is seen before it is opened: its newest days, what is open in them, and cards that wait in readers. */
final readonly class Glance
{
    /** The newest days that are looked through; what is open in older ones is on their own sheets. */
    public const DAYS = 6;

    /** Seconds that a look is kept while nothing changes. */
    private const KEPT = 600;

    public function __construct(private OpenPoints $points, private Readers $readers, private LiveBus $bus) {}

    /**
     * @return list<array{ulid: string, number: int, date: string, takes: int, cards: int, open: int}> the newest day first
     */
    public function days(Production $production): array
    {
        return Cache::remember(
            "glance.$production->id." . $this->bus->last($production->id),
            self::KEPT,
            fn(): array => $production
                ->days()
                ->withCount(['takes', 'cards' => static fn(Builder $cards) => $cards->whereNull('away_at')])
                ->orderByDesc('number')
                ->limit(self::DAYS)
                ->get()
                ->map(
                    fn(ShootDay $day): array => [
                        'ulid' => $day->ulid,
                        'number' => $day->number,
                        'date' => $day->date->format('Y-m-d'),
                        'takes' => (int) $day->getAttribute('takes_count'),
                        'cards' => (int) $day->getAttribute('cards_count'),
                        'open' => count($this->points->of($day->setRelation('production', $production))),
                    ],
                )
                ->all(),
        );
    }

    /** @return list<string> names of volumes in the readers of which something is not in yet, its own and those that are nobody's */
    public function waiting(Production $production): array
    {
        $volumes = $this->readers->volumes($production);
        if ($volumes->isEmpty()) {
            return [];
        }
        $cards = Card::query()
            ->with(['device', 'copies'])
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->get();

        return array_values(
            array_column(
                array_filter($this->readers->look($production, $volumes, $cards), static fn(array $one): bool => $one['state'] !== 'seen'),
                'name',
            ),
        );
    }
}
