<?php

declare(strict_types=1);

namespace App\Domain\Assembly;

use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Problem;
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
        $clips = self::placed($day);
        $pictures = $clips->filter(static fn(Clip $clip): bool => $clip->isPicture() && $clip->device !== null);
        $found = [];
        foreach (self::takes($day, $clips) as $key => ['label' => $label, 'description' => $description, 'clips' => $own]) {
            [$from, $to] = self::span($own->filter(static fn(Clip $clip): bool => $clip->isPicture()));
            self::add($found, $key, $label, $description, $own->first()?->placement->group, $from, $to, $own);
        }
        foreach ($clips->filter(static fn(Clip $clip): bool => $clip->isSound() && $clip->import_kind === null) as $sound) {
            [$from, $to] = self::span(new Collection([$sound]));
            $beside = $pictures->filter(
                static fn(Clip $one): bool => $one->placement->group === $sound->placement->group &&
                    $one->placement->start_ticks < $to &&
                    $one->placement->start_ticks + $one->duration_ticks > $from,
            );
            // What is a take already is not offered twice.
            $isTake =
                $sound->parts->isNotEmpty() && isset($found['take:' . $sound->parts->first()->take->ulid]) && $sound->parts->count() === 1;
            if (!$isTake) {
                [$first, $last] = self::span($beside);
                self::add($found, "clip:$sound->ulid", $sound->title(), '', $sound->placement->group, $first, $last, $beside);
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
        return self::placed($day)
            ->filter(
                static fn(Clip $clip): bool => $clip->placement->group === $group &&
                    $clip->placement->start_ticks < $to &&
                    $clip->placement->start_ticks + (int) $clip->duration_ticks > $from,
            )
            ->values()
            ->load(['device.look', 'look', 'card', 'production']);
    }

    /** @return Collection<int, Clip> those of a day that have a place, in the order of lanes and clock */
    private static function placed(ShootDay $day): Collection
    {
        return Clip::query()
            ->where('clips.shoot_day_id', $day->id)
            ->whereNull('away_at')
            ->whereNull('import_kind')
            ->where('duration_ticks', '>', 0)
            ->whereHas('placement', static fn($place) => $place->whereNotNull('start_ticks'))
            ->with(['placement', 'device', 'parts.take', 'day'])
            ->get()
            ->sortBy(static fn(Clip $clip): array => [$clip->device->lane ?? 99, $clip->placement->start_ticks, $clip->id])
            ->values();
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @return array<string, array{label: string, description: string, clips: Collection<int, Clip>}> by key
     */
    private static function takes(ShootDay $day, Collection $clips): array
    {
        $takes = [];
        foreach ($clips as $clip) {
            foreach ($clip->parts as $part) {
                $takes["take:{$part->take->ulid}"] ??= [
                    'label' => $part->take->label(),
                    'description' => (string) $part->take->description,
                    'clips' => new Collection(),
                ];
                $takes["take:{$part->take->ulid}"]['clips']->push($clip);
            }
        }

        return $takes;
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @return array{int, int}
     */
    private static function span(Collection $clips): array
    {
        return $clips->isEmpty()
            ? [0, 0]
            : [
                (int) $clips->min(static fn(Clip $clip): int => $clip->placement->start_ticks),
                (int) $clips->max(static fn(Clip $clip): int => $clip->placement->start_ticks + (int) $clip->duration_ticks),
            ];
    }

    /**
     * @param  array<string, array{key: string, label: string, description: string, group: int, from: int, to: int, letters: list<string>,
     *     clips: int}>  $found
     * @param  Collection<int, Clip>  $clips
     */
    private static function add(
        array &$found,
        string $key,
        string $label,
        string $description,
        ?int $group,
        int $from,
        int $to,
        Collection $clips,
    ): void {
        $pictures = $clips->filter(static fn(Clip $clip): bool => $clip->isPicture() && $clip->device !== null);
        $letters = $pictures->map(static fn(Clip $clip): string => $clip->device->letter)->unique()->values()->all();
        if (count($letters) > 1) {
            $found[$key] = [
                'key' => $key,
                'label' => $label,
                'description' => $description,
                'group' => (int) $group,
                'from' => $from,
                'to' => $to,
                'letters' => array_slice($letters, 0, self::MOST),
                'clips' => $pictures->count(),
            ];
        }
    }
}
