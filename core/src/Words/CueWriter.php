<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Time\Ticks;

/**
 * Writes words as SubRip (SRT) or WebVTT: cues of two lines of 42 letters and seven seconds at most, none over two speakers or a
 * pause. Times are milliseconds, the start rounded down and the end up, so that no word lies outside its cue.
 */
final class CueWriter
{
    private const LINE = 42;

    private const LONGEST = 7 * Ticks::PER_SECOND;

    private const MILLISECOND = Ticks::PER_SECOND / 1000;

    public static function srt(Transcript $transcript): string
    {
        $text = '';
        $last = null;
        foreach (self::cues($transcript) as $number => $words) {
            $speaker = $words[0]->speaker;
            $said = ($speaker !== null && $speaker !== $last ? mb_strtoupper($speaker) . ': ' : '') . self::words($words);
            $last = $speaker;
            $text .= $number + 1 . "\n" . self::times($words, ',') . "\n" . self::lines($said) . "\n\n";
        }

        return $text;
    }

    public static function vtt(Transcript $transcript): string
    {
        $text = "WEBVTT\n\n";
        foreach (self::cues($transcript) as $words) {
            $speaker = $words[0]->speaker;
            $said = str_replace(['&', '<', '>'], ['&amp;', '&lt;', '&gt;'], self::lines(self::words($words)));
            $voice = $speaker === null ? '' : '<v ' . str_replace(['&', '<', '>', "\n"], ['&amp;', '', '', ' '], $speaker) . '>';
            $text .= self::times($words, '.') . "\n" . $voice . $said . "\n\n";
        }

        return $text;
    }

    /** @return list<non-empty-list<Word>> */
    private static function cues(Transcript $transcript): array
    {
        $cues = [];
        foreach ($transcript->paragraphs() as $words) {
            $open = [];
            $letters = 0;
            foreach ($words as $word) {
                $isFull =
                    $open !== [] &&
                    ($letters + mb_strlen($word->text) > 2 * self::LINE - 6 || $word->endTicks - $open[0]->startTicks > self::LONGEST);
                if ($isFull) {
                    $cues[] = $open;
                    $open = [];
                    $letters = 0;
                }
                $open[] = $word;
                $letters += mb_strlen($word->text) + 1;
            }
            $cues[] = $open;
        }

        return array_values(array_filter($cues));
    }

    /** @param  non-empty-list<Word>  $words */
    private static function words(array $words): string
    {
        // An arrow would be the times of another cue.
        return str_replace('-->', '→', implode(' ', array_column($words, 'text')));
    }

    private static function lines(string $text): string
    {
        return mb_strlen($text) <= self::LINE ? $text : wordwrap($text, max(self::LINE, intdiv(strlen($text), 2) + 8), "\n");
    }

    /** @param  non-empty-list<Word>  $words */
    private static function times(array $words, string $point): string
    {
        $from = intdiv($words[0]->startTicks, self::MILLISECOND);
        $to = max($from + 1, -Ticks::floorDiv(-$words[count($words) - 1]->endTicks, self::MILLISECOND));

        return self::label($from, $point) . ' --> ' . self::label($to, $point);
    }

    private static function label(int $milliseconds, string $point): string
    {
        $seconds = intdiv($milliseconds, 1000);

        return sprintf(
            '%02d:%02d:%02d%s%03d',
            intdiv($seconds, 3600),
            intdiv($seconds, 60) % 60,
            $seconds % 60,
            $point,
            $milliseconds % 1000,
        );
    }
}
