<?php

declare(strict_types=1);

namespace App\Domain\Points;

use App\Domain\Tasks\DayWork;
use App\Models\SettledPoint;
use App\Models\ShootDay;

/**
 * The open points of a day, from the domains that find them; nothing is stored but a person's "it is right so". What may
 * be true only because work on it is not done is said when the work has ended.
 */
final class OpenPoints
{
    /** @param  iterable<PointSource>  $sources  in the order in which their points stand */
    public function __construct(private readonly iterable $sources, private readonly DayWork $work) {}

    /** @return list<OpenPoint> faults first */
    public function of(ShootDay $day): array
    {
        return array_column($this->found($day), 0);
    }

    /** @return array{OpenPoint, PointSource}|null a point that is open now, and who found it */
    public function find(ShootDay $day, string $key): ?array
    {
        foreach ($this->found($day) as $found) {
            if ($found[0]->key === $key) {
                return $found;
            }
        }

        return null;
    }

    /** @return list<array{OpenPoint, PointSource}> */
    private function found(ShootDay $day): array
    {
        $runs = $this->work->kinds($day);
        $settled = SettledPoint::query()->where('shoot_day_id', $day->id)->pluck('point')->flip();
        $faults = $others = [];
        foreach ($this->sources as $source) {
            foreach ($source->of($day) as $point) {
                if (($runs !== [] && array_intersect($point->awaits, $runs) !== []) || $settled->has($point->key)) {
                    continue;
                }
                if ($point->weight === 'fault') {
                    $faults[] = [$point, $source];
                } else {
                    $others[] = [$point, $source];
                }
            }
        }

        return [...$faults, ...$others];
    }
}
