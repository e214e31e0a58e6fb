<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Support\Problem;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Levels;
use Cartella\Core\Words\Pauses;
use Cartella\Core\Words\QuietEdges;

/** Stretches of a clip by what is said in it: chosen words with the quiet around them, and the pauses between. */
final class WordStretch
{
    /**
     * In and out of chosen words, on the frames of the clip that is looked at.
     *
     * @param  Clip  $clip  that is looked at
     * @param  Clip  $sound  in which the words are heard; the same, or a recording under it
     * @param  array{start: int, end: int, before: ?int, after: ?int}  $words  of the clip: their ticks, where the word before them ends and
     *     the one after them begins
     * @return array{int, int} ticks of the clip
     */
    public static function around(Clip $clip, Clip $sound, array $words): array
    {
        $offset = self::offset($clip, $sound);
        $length = (int) $clip->duration_ticks;
        // Not all of a recording of many hours for each stretch.
        $levels = self::levels($sound, $words['start'] - $offset - Ticks::PER_SECOND, $words['end'] - $offset + Ticks::PER_SECOND);
        $rate = self::grid($clip);
        [$from, $to] = QuietEdges::around(
            $levels,
            $words['start'] - $offset,
            $words['end'] - $offset,
            $words['before'] === null ? null : $words['before'] - $offset,
            $words['after'] === null ? null : $words['after'] - $offset,
        );
        $in = max(0, Ticks::ofFrames(Ticks::toFrames($from + $offset, $rate), $rate));
        $out = min($length, Ticks::ofFrames(-Ticks::toFrames(-($to + $offset), $rate), $rate));

        return $out > $in ? [$in, $out] : throw Problem::refused('words.place', 'These words lie outside the clip.', 'Choose others.');
    }

    /**
     * @param  float|null  $belowDb  dBFS; null finds it
     * @return Pauses of the clip's own sound
     */
    public static function pauses(Clip $sound, ?float $belowDb, int $longerTicks, int $paddingTicks): Pauses
    {
        $levels = self::levels($sound);
        $heard = array_map(static fn(array $one): int => (int) $one['index'], $sound->worthHearing());

        return Pauses::of($heard === [] ? $levels : $levels->only($heard), $belowDb, $longerTicks, $paddingTicks);
    }

    /** How far a recording lies behind the first frame of a clip, ticks. */
    public static function offset(Clip $clip, Clip $sound): int
    {
        return $clip->id === $sound->id ? 0 : (int) $sound->placement?->start_ticks - (int) $clip->placement?->start_ticks;
    }

    /** @return FrameRate the frames a stretch of the clip lies on: its own, or the production's for sound */
    private static function grid(Clip $clip): FrameRate
    {
        return ($clip->isPicture() ? $clip->rate() : null) ?? $clip->production->rate();
    }

    /** @throws Problem where its peaks are not made yet */
    private static function levels(Clip $sound, int $fromTicks = 0, int $toTicks = PHP_INT_MAX): Levels
    {
        try {
            return Levels::ofPeaks(MediaFolder::of($sound)->read(MediaFile::Peaks), $fromTicks, $toTicks);
        } catch (UnableToReadMedia) {
            throw Problem::refused(
                'words.media',
                "The media of {$sound->title()} are not made yet.",
                'Wait until they are, then try again.',
            );
        }
    }
}
