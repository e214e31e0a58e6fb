<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Device;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Clock;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Illuminate\Support\Facades\DB;

/**
 * Corrects the clock of a card, a day or a device by what one frame really reads; undoable, and what was recorded stays
 * as it is. A card's correction goes before its day's, and a day's before the device's.
 */
final class StateClock
{
    /**
     * @param  int  $frame  of the clip, from 0
     * @param  string  $label  timecode that the frame reads, at the clip's rate
     * @param  'card'|'day'|'device'  $for
     * @return int the correction, in ticks
     *
     * @throws Problem if the clip has no time, no device or no such frame, or the label is none
     */
    public function __invoke(Clip $clip, User $user, int $frame, string $label, string $for): int
    {
        $rate = $clip->rate() ?? $clip->production->rate();
        if ($clip->start_ticks === null || $clip->device === null) {
            throw Problem::refused(
                'clock.none',
                "$clip->name carries no time that could be corrected.",
                'Choose a clip of a device that writes timecode.',
            );
        }
        if ($frame < 0 || ($frame >= max(1, (int) $clip->frames) && $clip->isPicture())) {
            throw Problem::refused(
                'clock.frame',
                "$clip->name has no frame $frame.",
                'Choose one from 0 to ' . ((int) $clip->frames - 1) . '.',
            );
        }
        try {
            $reads = Ticks::ofFrames(Timecode::parse($label, $rate), $rate);
        } catch (InvalidTime $trouble) {
            throw Problem::refused('clock.label', $trouble->getMessage(), $trouble->fix());
        }
        $day = 86_400 * Ticks::PER_SECOND;
        $apart = $reads - $clip->start_ticks - Ticks::ofFrames($frame, $rate);
        // A clock is taken to be less than half a day off, whichever way.
        $correction = $apart - $day * Ticks::floorDiv($apart + intdiv($day, 2), $day);
        DB::transaction(fn() => $this->keep($clip, $user, $correction, $for));
        Live::tell($clip->production_id, Topic::Lineup);

        return $correction;
    }

    /**
     * Takes what sound has learned of a device's clock as its correction, for the day or for the device from now on.
     *
     * @param  'day'|'device'  $for
     *
     * @throws Problem if nothing was learned
     */
    public function apply(ShootDay $day, Device $device, User $user, string $for): void
    {
        DB::transaction(static function () use ($day, $device, $user, $for): void {
            $row = ClockOffset::query()->where('shoot_day_id', $day->id)->where('device_id', $device->id)->lockForUpdate()->first();
            if ($row?->learned_ticks === null) {
                throw Problem::refused(
                    'clock.unknown',
                    'Line-up has not learned the clock of ' . lcfirst($device->title()) . ' on this day.',
                    'Line up the day first.',
                );
            }
            $log = new ChangeLog();
            if ($for === 'device') {
                $device->clock_ticks = $row->learned_ticks;
                $row->applied_ticks = null;
                $log->save($device);
            } else {
                $row->applied_ticks = $row->learned_ticks;
            }
            $log->save($row);
            $log->finish($day->production, $user, 'Correct the clock of ' . lcfirst($device->title()));
        });
        Live::tell($day->production_id, Topic::Lineup);
    }

    private function keep(Clip $clip, User $user, int $correction, string $for): void
    {
        $log = new ChangeLog();
        // Two people who state the same clock come one after the other; each can take back only what is still theirs.
        $device = Device::query()->lockForUpdate()->findOrFail($clip->device_id);
        switch ($for) {
            case 'card':
                $card =
                    $clip->card ?? throw Problem::refused('clock.card', "$clip->name came from no card.", 'Correct the day or the device.');
                $card->clock_ticks = $correction;
                $log->save($card);
                break;
            case 'day':
                $row = ClockOffset::query()->firstOrNew(['device_id' => $device->id, 'shoot_day_id' => $clip->shoot_day_id]);
                $row->applied_ticks = $correction;
                $log->save($row);
                break;
            default:
                $device->clock_ticks = $correction;
                $log->save($device);
                // A day that was corrected before would go on hiding what is true of the device now.
                foreach (ClockOffset::query()->where('device_id', $device->id)->whereNotNull('applied_ticks')->get() as $row) {
                    $row->applied_ticks = null;
                    $log->save($row);
                }
        }
        $log->finish(
            $clip->production,
            $user,
            sprintf(
                'Correct the clock of %s by %s%s',
                $for === 'card' ? $clip->card->roll : lcfirst($device->title()),
                $correction < 0 ? '−' : '+',
                Clock::distance($correction, $clip->rate() ?? $clip->production->rate()),
            ),
        );
    }
}
