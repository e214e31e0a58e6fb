<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/**
 * Gives the words of a text the times at which they were heard: forced alignment. Words that were not heard stand between
 * those that were, by their letters; they have no confidence.
 */
final readonly class Aligner
{
    /** A speaker before a colon at the start of a line. */
    private const SPEAKER = '/\A\s*(\p{Lu}[\p{L}\d .\'-]{0,30}):\s+(?=\S)/u';

    /** @param  float  $matched  share of the words that were heard with those beside them */
    private function __construct(public Transcript $transcript, public float $matched) {}

    /** @param  list<Word>  $heard  in order */
    public static function align(string $text, array $heard, int $durationTicks): self
    {
        [$written, $speakers] = self::written($text);
        // Several spoken words may be one that is written: the first of them is its start.
        $keys = $owner = [];
        foreach ($written as $at => $word) {
            foreach (SpokenText::spoken($word) ?: [SpokenText::key($word)] as $said) {
                $keys[] = $said;
                $owner[] = $at;
            }
        }
        $times = [];
        $said = array_map(static fn(Word $word): string => SpokenText::spoken($word->text)[0] ?? SpokenText::key($word->text), $heard);
        $pairs = WordAlignment::of($keys, $said);
        $matched = [];
        foreach ($pairs as $x => $y) {
            $at = $owner[$x];
            $times[$at] = [$times[$at][0] ?? $heard[$y]->startTicks, $heard[$y]->endTicks, $heard[$y]->confidence, $heard[$y]->speaker];
            // Any text is found in any sound a word here and there; several that follow each other are another thing.
            if (($pairs[$x + 1] ?? -1) === $y + 1 && ($pairs[$x + 2] ?? -1) === $y + 2) {
                $matched += [$at => true, $owner[$x + 1] => true, $owner[$x + 2] => true];
            }
        }
        $words = [];
        $count = count($written);
        for ($at = 0; $at < $count; $at++) {
            if (isset($times[$at])) {
                [$start, $end, $confidence, $speaker] = $times[$at];
                $words[] = new Word($written[$at], $start, $end, $speakers[$at] ?? $speaker, $confidence);

                continue;
            }
            $next = $at;
            while ($next < $count && !isset($times[$next])) {
                $next++;
            }
            $from = $words === [] ? 0 : $words[count($words) - 1]->endTicks;
            $to = $next < $count ? $times[$next][0] : max($from, $durationTicks);
            array_push(
                $words,
                ...self::between(
                    array_slice($written, $at, $next - $at),
                    array_slice($speakers, $at, $next - $at),
                    $from,
                    max($from, $to),
                    $words === [],
                    $next === $count,
                ),
            );
            $at = $next - 1;
        }

        return new self(new Transcript($words, Recogniser::ENGINE, 'aligned'), $count === 0 ? 0.0 : count($matched) / $count);
    }

    /** The text without names of speakers, for the model of what is said. */
    public static function spokenText(string $text): string
    {
        return implode(
            "\n",
            array_map(static fn(string $line): string => (string) preg_replace(self::SPEAKER, '', $line), explode("\n", $text)),
        );
    }

    /** @return array{list<string>, list<string|null>} words and who says each */
    private static function written(string $text): array
    {
        $words = $speakers = [];
        $speaker = null;
        foreach (explode("\n", $text) as $line) {
            if (preg_match(self::SPEAKER, $line, $part) === 1) {
                $speaker = mb_convert_case(trim($part[1]), MB_CASE_TITLE);
                $line = substr($line, strlen($part[0]));
            }
            foreach (SpokenText::written($line) as $word) {
                $words[] = $word;
                $speakers[] = $speaker;
            }
        }

        return [$words, $speakers];
    }

    /**
     * Words that nobody heard, in the room that there is: a fifteenth of a second for each letter at most, next to what was heard.
     *
     * @param  list<string>  $written
     * @param  list<string|null>  $speakers
     * @return list<Word>
     */
    private static function between(array $written, array $speakers, int $from, int $to, bool $isFirst, bool $isLast): array
    {
        $weights = array_map(static fn(string $word): int => mb_strlen($word) + 1, $written);
        $sum = max(1, array_sum($weights));
        $need = (int) ($sum * (705_600_000 / 15));
        if ($to - $from > $need) {
            [$from, $to] = $isFirst && !$isLast ? [$to - $need, $to] : [$from, $from + $need];
        }
        $words = [];
        $before = 0;
        foreach ($written as $at => $word) {
            $start = $from + intdiv(($to - $from) * $before, $sum);
            $before += $weights[$at];
            $words[] = new Word($word, $start, $from + intdiv(($to - $from) * $before, $sum), $speakers[$at]);
        }

        return $words;
    }
}
