<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Clip;
use App\Models\ShootDay;
use App\Support\Clock;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Collection;

/**
 * The check at wrap: every device of a day should show the same number of clips of about the same length. Counts and
 * running times stand side by side, and what one device has and another lacks is named by its clock.
 */
final class ClipCheck
{
    /** Running times that differ by less than this share are alike: nobody stops in the same second. */
    private const ALIKE = 0.1;

    /**
     * @return array{devices: list<array{device: string, kind: string, clips: int, running_ticks: int, first_ticks: int|null, last_ticks: int|null}>, differences: list<array{device: string, against: string, title: string, evidence: string}>}
     */
    public function of(ShootDay $day): array
    {
        $clips = Clip::query()->with(['device', 'placement'])->where('shoot_day_id', $day->id)->whereNull('import_kind')->whereNotNull('device_id')
            ->whereIn('kind', ['picture', 'sound'])->orderBy('start_ticks')->get();
        $byDevice = $clips->groupBy('device_id')->sortBy(static fn (Collection $own): int => $own->first()->device->lane);
        $devices = $byDevice->map(static fn (Collection $own): array => [
            'device' => $own->first()->device->letter, 'kind' => $own->first()->device->kind, 'clips' => $own->count(), 'running_ticks' => (int) $own->sum('duration_ticks'),
            'first_ticks' => $own->whereNotNull('start_ticks')->min('start_ticks'), 'last_ticks' => $own->whereNotNull('start_ticks')->map(static fn (Clip $clip): int => $clip->start_ticks + (int) $clip->duration_ticks)->max(),
        ])->values()->all();

        return ['devices' => $devices, 'differences' => $this->differences($byDevice)];
    }

    /**
     * Against the device with the most clips; what a take explains already is not told again.
     *
     * @param  Collection<int, Collection<int, Clip>>  $byDevice
     * @return list<array{device: string, against: string, title: string, evidence: string}>
     */
    private function differences(Collection $byDevice): array
    {
        $fullest = $byDevice->sortByDesc(static fn (Collection $own): array => [$own->count(), $own->sum('duration_ticks')])->first();
        $differences = [];
        foreach ($byDevice as $own) {
            if ($own === $fullest) {
                continue;
            }
            $device = $own->first()->device;
            $against = $fullest->first()->device;
            $lacking = $fullest->filter(fn (Clip $clip): bool => ! self::isExplained($clip) && ! $this->hasPartner($clip, $own))->values();
            $running = [(int) $own->sum('duration_ticks'), (int) $fullest->sum('duration_ticks')];
            $isShort = $own->count() === $fullest->count() && abs($running[0] - $running[1]) > self::ALIKE * max($running);
            if ($lacking->isEmpty() && ! $isShort) {
                continue;
            }
            $figures = sprintf('%s: %d clips, %s. %s: %d clips, %s.', $against->letter, $fullest->count(), self::length($running[1]), $device->letter, $own->count(), self::length($running[0]));
            $differences[] = [
                'device' => $device->letter, 'against' => $against->letter,
                'title' => $lacking->isEmpty()
                    ? sprintf('%s ran %s than %s', $device->letter, $running[0] < $running[1] ? 'shorter' : 'longer', $against->letter)
                    : sprintf('%s shows nothing for %d %s of %s', $device->letter, $lacking->count(), $lacking->count() === 1 ? 'clip' : 'clips', $against->letter),
                'evidence' => $figures.($lacking->isEmpty() ? '' : ' Nothing of '.$device->letter.' beside '.$lacking->take(3)->map(static fn (Clip $clip): string => $clip->name.' at '.Clock::time((int) self::at($clip)))->implode(', ').($lacking->count() > 3 ? sprintf(' and %d more', $lacking->count() - 3) : '').'.'),
            ];
        }

        return $differences;
    }

    /** @param  Collection<int, Clip>  $others */
    private function hasPartner(Clip $clip, Collection $others): bool
    {
        $at = self::at($clip);
        if ($at === null) {
            return true; // without a time there is nothing to miss it by
        }

        return $others->contains(static function (Clip $other) use ($clip, $at): bool {
            $start = self::at($other);

            return $start === null || ($start < $at + (int) $clip->duration_ticks && $at < $start + (int) $other->duration_ticks);
        });
    }

    /** Said elsewhere: it was a false start or wild, or it has a take, whose open points name the devices it misses. */
    private static function isExplained(Clip $clip): bool
    {
        return $clip->is_false_start || $clip->is_wild || $clip->take_id !== null;
    }

    private static function at(Clip $clip): ?int
    {
        return $clip->placement->start_ticks ?? $clip->start_ticks;
    }

    private static function length(int $ticks): string
    {
        $seconds = (int) round($ticks / Ticks::PER_SECOND);

        return $seconds >= 3600 ? sprintf('%d:%02d:%02d', intdiv($seconds, 3600), intdiv($seconds, 60) % 60, $seconds % 60) : sprintf('%d:%02d', intdiv($seconds, 60), $seconds % 60);
    }
}
