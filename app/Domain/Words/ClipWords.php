<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Lineup\SoundsUnder;
use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Transcript;
use Cartella\Core\Words\Word;

/**
 * What is said in a clip: its own words, or for a picture those of the recordings under it, with how far they lie from its first frame.
 */
final class ClipWords
{
    /** @return list<array{transcript: Transcript, clip: Clip, offset: int, from: int, to: int}> ticks of the clip that was asked about */
    public static function sources(Clip $clip): array
    {
        $own = Transcript::query()->with('user')->where('clip_id', $clip->id)->first();
        if ($own !== null) {
            return [['transcript' => $own, 'clip' => $clip, 'offset' => 0, 'from' => 0, 'to' => (int) $clip->duration_ticks]];
        }
        $found = [];
        foreach (self::under($clip) as ['sound' => $sound, 'from' => $from, 'to' => $to]) {
            $transcript = Transcript::query()->with('user')->where('clip_id', $sound->id)->first();
            if ($transcript !== null) {
                $found[] = [
                    'transcript' => $transcript,
                    'clip' => $sound,
                    'offset' => (int) $sound->placement?->start_ticks - (int) $clip->placement?->start_ticks,
                    'from' => $from,
                    'to' => $to,
                ];
            }
        }

        return $found;
    }

    /**
     * Where words of a clip would come from: a picture's from the recordings under it, where there are some.
     *
     * @return list<Clip>
     */
    public static function heardIn(Clip $clip): array
    {
        $under = array_column(self::under($clip), 'sound');

        return $under === [] ? [$clip] : $under;
    }

    /** @return list<array{sound: Clip, from: int, to: int}> */
    private static function under(Clip $clip): array
    {
        return $clip->isPicture() && $clip->placement?->start_ticks !== null ? SoundsUnder::of($clip, Windows::beside($clip)) : [];
    }

    /**
     * Passages of a source, as far as they lie within the clip.
     *
     * @param  array{transcript: Transcript, offset: int, from: int, to: int}  $source
     * @return \Illuminate\Database\Eloquent\Collection<int, Passage>
     */
    public static function passages(array $source): \Illuminate\Database\Eloquent\Collection
    {
        return Passage::query()
            ->where('transcript_id', $source['transcript']->id)
            ->where('end_ticks', '>', $source['from'] - $source['offset'])
            ->where('start_ticks', '<', $source['to'] - $source['offset'])
            ->with('editor')
            ->orderBy('start_ticks')
            ->orderBy('id')
            ->get();
    }

    /**
     * Words of a clip or of a stretch of it, on its own time.
     *
     * @return list<Word>
     */
    public static function words(Clip $clip, int $fromTicks = 0, ?int $toTicks = null): array
    {
        $to = $toTicks ?? (int) $clip->duration_ticks;
        $words = [];
        foreach (self::sources($clip) as $source) {
            foreach (self::passages($source) as $passage) {
                foreach (PassageWords::of($passage) as $word) {
                    $shifted = $word->later($source['offset']);
                    if ($shifted->endTicks > max($fromTicks, $source['from']) && $shifted->startTicks < min($to, $source['to'])) {
                        $words[] = $shifted;
                    }
                }
            }
        }
        usort($words, static fn(Word $x, Word $y): int => $x->startTicks <=> $y->startTicks);

        return $words;
    }
}
