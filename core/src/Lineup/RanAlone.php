<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Time\Ticks;

/** What a clip is taken to be that ran while nothing of the other kind did: sound without picture, or picture without sound. */
enum RanAlone: string
{
    case FalseStart = 'false_start';
    case Wild = 'wild';
    case RoomTone = 'room_tone';
    case Mos = 'mos';

    /** What is shorter and shows no slate was started by mistake; ticks. */
    public const SHORT_TICKS = 6 * Ticks::PER_SECOND;

    /**
     * @param  int  $durationTicks  of the clip
     * @param  bool  $hasSlate  whether it is known of which take it is
     * @param  bool  $isHeard  whether anything stands out of what it recorded itself
     * @param  string  $words  its name and the recorder's note
     * @return self|null null for picture that heard something itself: there the recorder was missed, and that is no MOS
     */
    public static function of(bool $isSound, int $durationTicks, bool $hasSlate, bool $isHeard, string $words): ?self
    {
        if ($isSound) {
            return !$isHeard || preg_match('/room\s*tone|atmos/i', $words) === 1 ? self::RoomTone : self::Wild;
        }

        return match (true) {
            !$hasSlate => $durationTicks < self::SHORT_TICKS ? self::FalseStart : null,
            default => $isHeard ? null : self::Mos,
        };
    }

    public function why(): string
    {
        return match ($this) {
            self::Wild => 'no picture ran with it',
            self::RoomTone => 'no picture ran with it, and nobody speaks',
            self::Mos => 'no recording ran with it',
            self::FalseStart => 'it is short, and no recording ran with it',
        };
    }
}
