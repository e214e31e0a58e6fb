<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\ShootDay;
use App\Support\Clock;
use Cartella\Core\Custody\ClipGaps;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * The check at wrap: every device of a day should show the same number of clips of about the same length. Counts and
 * running times stand side by side, and what one device has and another lacks is named by its clock.
 */
final class ClipCheck
{
    /** Running times that differ by less than this share are alike: nobody stops in the same second. */
    private const ALIKE = 0.1;

    /**
     * @return array{devices: list<array{device: string, kind: string, clips: int, running_ticks: int, first_ticks: int|null,
     *     last_ticks: int|null}>, differences: list<array{device: string, against: string, title: string, evidence: string}>}
     */
    public function of(ShootDay $day): array
    {
        $devices = $this->clipsOf($day)
            ->join('devices', 'devices.id', '=', 'clips.device_id')
            ->groupBy('devices.id', 'devices.letter', 'devices.kind', 'devices.lane')
            ->orderBy('devices.lane')
            ->selectRaw(
                'devices.id, devices.letter, devices.kind, COUNT(*) AS clips, SUM(clips.duration_ticks) AS running, ' .
                    'MIN(clips.start_ticks) AS first, MAX(clips.start_ticks + clips.duration_ticks) AS last',
            )
            ->get();

        return [
            'devices' => $devices
                ->map(
                    static fn(object $one): array => [
                        'device' => $one->letter,
                        'kind' => $one->kind,
                        'clips' => (int) $one->clips,
                        'running_ticks' => (int) $one->running,
                        'first_ticks' => $one->first === null ? null : (int) $one->first,
                        'last_ticks' => $one->last === null ? null : (int) $one->last,
                    ],
                )
                ->all(),
            'differences' => $devices->count() < 2 ? [] : $this->differences($day, $devices),
        ];
    }

    /**
     * Against the device with the most clips; what a take explains already is not told again.
     *
     * @param  Collection<int, \stdClass>  $devices
     * @return list<array{device: string, against: string, title: string, evidence: string}>
     */
    private function differences(ShootDay $day, Collection $devices): array
    {
        $fullest = $devices->sortByDesc(static fn(object $one): array => [(int) $one->clips, (int) $one->running])->first();
        $open = $this->unexplained($day, $fullest->id);
        $differences = [];
        foreach ($devices as $device) {
            if ($device === $fullest) {
                continue;
            }
            $lacking = $open === [] ? [] : ClipGaps::of($open, $this->spans($day, $device->id));
            $isShort =
                (int) $device->clips === (int) $fullest->clips &&
                abs($device->running - $fullest->running) > self::ALIKE * max($device->running, $fullest->running);
            if ($lacking === [] && !$isShort) {
                continue;
            }
            $named = implode(
                ', ',
                array_map(
                    static fn(array $clip): string => "{$clip['name']} (" . Clock::time($clip['start']) . ')',
                    array_slice($lacking, 0, 3),
                ),
            );
            $differences[] = [
                'device' => $device->letter,
                'against' => $fullest->letter,
                'title' =>
                    $lacking === []
                        ? sprintf(
                            '%s ran %s than %s',
                            $device->letter,
                            $device->running < $fullest->running ? 'shorter' : 'longer',
                            $fullest->letter,
                        )
                        : sprintf('%s shows nothing for %s of %s', $device->letter, self::clips(count($lacking)), $fullest->letter),
                'evidence' =>
                    sprintf(
                        '%s: %s, %s. %s: %s, %s.',
                        $fullest->letter,
                        self::clips((int) $fullest->clips),
                        self::length((int) $fullest->running),
                        $device->letter,
                        self::clips((int) $device->clips),
                        self::length((int) $device->running),
                    ) .
                    ($lacking === []
                        ? ''
                        : " Nothing of $device->letter beside $named" .
                            (count($lacking) > 3 ? sprintf(' and %d more', count($lacking) - 3) : '') .
                            '.'),
            ];
        }

        return $differences;
    }

    /**
     * Clips of a device that nothing explains: no false start, not wild, and without a take, whose open points would
     * name the devices it misses.
     *
     * @return list<array{name: string, start: int, length: int}>
     */
    private function unexplained(ShootDay $day, int $device): array
    {
        return $this->clipsOf($day)
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->where('clips.device_id', $device)
            ->whereNotExists(static fn($part) => $part->from('take_parts')->whereColumn('take_parts.clip_id', 'clips.id'))
            ->where('clips.is_false_start', false)
            ->where('clips.is_wild', false)
            ->selectRaw('clips.name, COALESCE(placements.start_ticks, clips.start_ticks) AS start, clips.duration_ticks AS length')
            ->havingRaw('start IS NOT NULL')
            ->orderBy('start')
            ->get()
            ->map(static fn(object $clip): array => ['name' => $clip->name, 'start' => (int) $clip->start, 'length' => (int) $clip->length])
            ->all();
    }

    /** @return list<array{start: int|null, length: int}> in order of their starts */
    private function spans(ShootDay $day, int $device): array
    {
        return $this->clipsOf($day)
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->where('clips.device_id', $device)
            ->selectRaw('COALESCE(placements.start_ticks, clips.start_ticks) AS start, clips.duration_ticks AS length')
            ->orderBy('start')
            ->get()
            ->map(
                static fn(object $clip): array => [
                    'start' => $clip->start === null ? null : (int) $clip->start,
                    'length' => (int) $clip->length,
                ],
            )
            ->all();
    }

    private function clipsOf(ShootDay $day): Builder
    {
        return DB::table('clips')
            ->where('clips.shoot_day_id', $day->id)
            ->whereNull('clips.away_at')
            ->whereNull('clips.import_kind')
            ->whereNotNull('clips.device_id')
            ->whereIn('clips.kind', ['picture', 'sound'])
            ->whereNotNull('clips.duration_ticks');
    }

    private static function clips(int $count): string
    {
        return $count === 1 ? '1 clip' : "$count clips";
    }

    private static function length(int $ticks): string
    {
        $seconds = (int) round($ticks / Ticks::PER_SECOND);

        return $seconds >= 3600
            ? sprintf('%d:%02d:%02d', intdiv($seconds, 3600), intdiv($seconds, 60) % 60, $seconds % 60)
            : sprintf('%d:%02d', intdiv($seconds, 60), $seconds % 60);
    }
}
