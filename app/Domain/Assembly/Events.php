<?php

declare(strict_types=1);

namespace App\Domain\Assembly;

use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Support\Problem;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;

/**
 * What several cameras saw at once, by the line-up of a day: takes, and recordings under which more than one camera ran. An event is
 * named by its take or its recording, and lies on the clock of their group.
 */
final class Events
{
    /** Cameras on one wall. */
    public const MOST = 16;

    /**
     * @return list<array{key: string, label: string, description: string, group: int, from: int, to: int, letters: list<string>,
     *     clips: int}> in the order of the clock
     */
    public static function of(ShootDay $day): array
    {
        $clips = self::placed(self::onDay($day));
        $found = [];
        foreach (self::takes($clips) as $key => ['label' => $label, 'description' => $description, 'parts' => $parts]) {
            self::add($found, $key, $label, $description, $parts);
        }
        $windows = new Windows($clips);
        foreach ($clips->filter(static fn(Clip $clip): bool => $clip->isSound()) as $sound) {
            // What is one take already is not offered twice.
            $part = $sound->parts->count() === 1 ? $sound->parts->first() : null;
            if ($part === null || !isset($found["take:{$part->take->ulid}"])) {
                $beside = array_map(
                    static fn(Clip $clip): array => ['clip' => $clip, 'in' => 0, 'out' => (int) $clip->duration_ticks],
                    $windows->partners($sound, 'picture'),
                );
                self::add($found, "clip:$sound->ulid", $sound->title(), '', $beside);
            }
        }
        usort($found, static fn(array $x, array $y): int => [$x['group'], $x['from']] <=> [$y['group'], $y['from']]);

        return $found;
    }

    /**
     * @return array{key: string, label: string, description: string, group: int, from: int, to: int, letters: list<string>, clips: int}
     *
     * @throws Problem if there is none of that name
     */
    public static function find(ShootDay $day, string $key): array
    {
        foreach (self::of($day) as $event) {
            if ($event['key'] === $key) {
                return $event;
            }
        }
        throw Problem::missing('That event', 'Line its day up, then choose it again.');
    }

    /**
     * @return Collection<int, Clip> the clips of a group that ran in a stretch of its clock, with what players need of them
     */
    public static function clips(ShootDay $day, int $group, int $from, int $to): Collection
    {
        // Asked for with each cut that is made while it plays: of the thousands of a day the database finds the few.
        return self::placed(
            self::onDay($day)->whereHas(
                'placement',
                static fn(Builder $place) => $place
                    ->where('group', $group)
                    ->where('start_ticks', '<', $to)
                    ->whereRaw('start_ticks + clips.duration_ticks > ?', [$from]),
            ),
        )->load(['device.look', 'look', 'card', 'production']);
    }

    /** @return Builder<Clip> those of a day that have a place */
    private static function onDay(ShootDay $day): Builder
    {
        return Clip::query()
            ->where('clips.shoot_day_id', $day->id)
            ->whereNull('away_at')
            ->whereNull('import_kind')
            ->where('duration_ticks', '>', 0)
            ->whereHas('placement', static fn(Builder $place) => $place->whereNotNull('start_ticks'));
    }

    /**
     * @param  Builder<Clip>  $asked
     * @return Collection<int, Clip> in the order of lanes and clock
     */
    private static function placed(Builder $asked): Collection
    {
        return $asked
            ->with(['placement', 'device', 'parts.take', 'day'])
            ->get()
            ->sortBy(static fn(Clip $clip): array => [$clip->device->lane ?? 99, $clip->placement->start_ticks, $clip->id])
            ->values();
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @return array<string, array{label: string, description: string, parts: list<array{clip: Clip, in: int, out: int}>}> by key; of a file
     *     that runs over several takes each has its own stretch
     */
    private static function takes(Collection $clips): array
    {
        $takes = [];
        foreach ($clips as $clip) {
            foreach ($clip->parts as $part) {
                $key = "take:{$part->take->ulid}";
                $takes[$key] ??= [
                    'label' => $part->take->label(),
                    'description' => (string) $part->take->description,
                    'parts' => [],
                ];
                $takes[$key]['parts'][] = [
                    'clip' => $clip,
                    'in' => (int) $part->in_ticks,
                    'out' => $part->out_ticks ?? (int) $clip->duration_ticks,
                ];
            }
        }

        return $takes;
    }

    /**
     * @param  array<string, array{key: string, label: string, description: string, group: int, from: int, to: int, letters: list<string>,
     *     clips: int}>  $found
     * @param  list<array{clip: Clip, in: int, out: int}>  $parts
     */
    private static function add(array &$found, string $key, string $label, string $description, array $parts): void
    {
        $pictures = array_values(
            array_filter($parts, static fn(array $part): bool => $part['clip']->isPicture() && $part['clip']->device !== null),
        );
        if ($pictures === []) {
            return;
        }
        usort(
            $pictures,
            static fn(array $x, array $y): int => [$x['clip']->device->lane, $x['clip']->placement->start_ticks] <=> [
                $y['clip']->device->lane,
                $y['clip']->placement->start_ticks,
            ],
        );
        // Cameras that share no clock cannot be cut between.
        $group = (int) $pictures[0]['clip']->placement->group;
        $pictures = array_filter($pictures, static fn(array $part): bool => (int) $part['clip']->placement->group === $group);
        $letters = array_values(array_unique(array_map(static fn(array $part): string => $part['clip']->device->letter, $pictures)));
        if (count($letters) > 1) {
            $found[$key] = [
                'key' => $key,
                'label' => $label,
                'description' => $description,
                'group' => $group,
                'from' => min(array_map(static fn(array $part): int => $part['clip']->placement->start_ticks + $part['in'], $pictures)),
                'to' => max(array_map(static fn(array $part): int => $part['clip']->placement->start_ticks + $part['out'], $pictures)),
                'letters' => array_slice($letters, 0, self::MOST),
                'clips' => count($pictures),
            ];
        }
    }
}
