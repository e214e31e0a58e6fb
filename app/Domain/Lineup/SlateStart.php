<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Support\Problem;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;

/** The frame from which a clip is worth watching: a second before its slate closes, so that the slate can be read. */
final class SlateStart
{
    /** A slate is closed within this much of a clip, and in its first half. */
    private const WITHIN = 12 * Ticks::PER_SECOND;

    private const READABLE = Ticks::PER_SECOND;

    /** @return int|null by the clap on the clip's own sound; null where none is heard */
    public static function heard(Clip $clip): ?int
    {
        $clap = self::clap($clip, 0, (int) $clip->duration_ticks);

        return $clap === null ? null : self::frame($clip, $clap);
    }

    /** @return int|null ticks of the clap that stands out most where a slate is expected in a stretch of the clip */
    public static function clap(Clip $clip, int $fromTicks, int $toTicks): ?int
    {
        $guide = MediaFolder::of($clip)->read(MediaFile::Guide);

        return is_file($guide)
            ? Claps::strongest(GuideTrack::ofFile($guide), $fromTicks, $fromTicks + min(self::WITHIN, intdiv($toTicks - $fromTicks, 2)))
            : null;
    }

    /** @return int|null by the frame at which something closes or flashes in the picture; null where nothing does */
    public static function seen(Clip $clip, CheckPoints $points): ?int
    {
        $found =
            $points->of($clip) ??
            throw Problem::refused(
                'points.pending',
                "The closing slate of {$clip->title()} is still being looked for.",
                'Try again in a moment.',
            );
        $flash = $found['flashes'][0]['frame'] ?? null;
        $rate = $clip->rate() ?? $clip->production->rate();

        return $flash === null ? null : self::frame($clip, Ticks::ofFrames($flash, $rate));
    }

    /** @return int|null by the claps and closing slates that were found when the clip came in; null where there are none */
    public static function known(Clip $clip, CheckPoints $points): ?int
    {
        $within = min(self::WITHIN, intdiv((int) $clip->duration_ticks, 2));
        $closes = $points->slate($clip, 0, $within);

        return $closes === null ? null : self::frame($clip, $closes);
    }

    private static function frame(Clip $clip, int $closesTicks): int
    {
        return Ticks::toFrames(max(0, $closesTicks - self::READABLE), $clip->rate() ?? $clip->production->rate());
    }
}
