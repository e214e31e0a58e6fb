<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Time\Ticks;

/**
 * Where the lines of a script are said in a clip's words: each read with how much of the line was said, lines that nobody said, and
 * words that nobody wrote.
 *
 * A line may be said several times in one clip, begun and broken off, or said otherwise; it counts from three fifths of its words on. One
 * of a single word counts only right beside a line that stands next to it in the script, since such words are said all the time.
 */
final class Reads
{
    private const LEAST = 0.6;

    private const SURELY = 0.8;

    /** Words that may be said between those of a line, for each of them. */
    private const LOOSE = 1.6;

    private const NEAR = 12 * Ticks::PER_SECOND;

    /**
     * @param  list<ScriptLine>  $lines  in the script's order
     * @param  list<Word>  $words
     * @return list<array{line: int, from: int, to: int, share: float, said: array<int, int>}> in the order of the words; `line` the index
     *     of the line, `from` and `to` of the first and last word, `said` by index of the word that of the line's
     */
    public static function of(array $lines, array $words): array
    {
        $keys = array_map(static fn(Word $word): string => SpokenText::key($word->text), $words);
        $places = [];
        foreach ($keys as $at => $key) {
            $places[$key][] = $at;
        }
        $found = [];
        foreach ($lines as $number => $line) {
            foreach ($line->keys === [] ? [] : self::candidates($line->keys, $places) as $from) {
                $read = self::match($line->keys, $keys, $from, count($keys));
                if ($read !== null) {
                    $found[] = ['line' => $number] + $read;
                }
            }
        }
        // Where two lines claim the same words, the one of which more was said has them.
        usort(
            $found,
            static fn(array $x, array $y): int => count($y['said']) * $y['share'] <=> count($x['said']) * $x['share'] ?:
            $x['from'] <=> $y['from'] ?:
            $x['line'] <=> $y['line'],
        );
        $taken = $kept = [];
        foreach ($found as $read) {
            if (array_intersect_key($read['said'], $taken) === []) {
                $kept[] = $read;
                $taken += $read['said'];
            }
        }
        $kept = self::withoutStray($lines, $words, $kept);
        usort($kept, static fn(array $x, array $y): int => $x['from'] <=> $y['from']);

        return $kept;
    }

    /**
     * Words that stand in no read.
     *
     * @param  list<Word>  $words
     * @param  list<array{said: array<int, int>}>  $reads
     * @return list<int>
     */
    public static function unwritten(array $words, array $reads): array
    {
        $said = [];
        foreach ($reads as $read) {
            $said += $read['said'];
        }

        return array_values(array_diff(array_keys($words), array_keys($said)));
    }

    /**
     * Words as the script spells them, with their punctuation and with who speaks, where a read says so.
     *
     * @param  list<ScriptLine>  $lines
     * @param  list<Word>  $words
     * @return list<Word>
     */
    public static function spelled(array $lines, array $words): array
    {
        foreach (self::of($lines, $words) as $read) {
            $line = $lines[$read['line']];
            $written = $line->words();
            $speaker = $line->character === '' ? null : $line->character;
            for ($word = $read['from']; $word <= $read['to']; $word++) {
                $at = $read['said'][$word] ?? null;
                if ($at !== null && SpokenText::key($written[$at]) === SpokenText::key($words[$word]->text)) {
                    $words[$word] = $words[$word]->with($written[$at])->sure(self::raised($words[$word]->confidence));
                }
                // A microphone is called after who wears it, the script says whom they play.
                $words[$word] =
                    $words[$word]->speaker === null || $read['share'] >= self::SURELY ? $words[$word]->with(null, $speaker) : $words[$word];
            }
        }

        return array_values($words);
    }

    /** That the words beside it are those of the line makes a word likelier: half of the doubt goes, and some more. */
    private static function raised(?float $confidence): ?float
    {
        return $confidence === null ? null : round(1 - 0.4 * (1 - $confidence), 3);
    }

    /**
     * Where a line may begin: at any of its first words, no two of them within half of its length.
     *
     * @param  non-empty-list<string>  $wanted
     * @param  array<string, list<int>>  $places
     * @return list<int>
     */
    private static function candidates(array $wanted, array $places): array
    {
        $votes = [];
        foreach ($wanted as $index => $key) {
            foreach (array_slice($places[$key] ?? [], 0, 2000) as $at) {
                $start = max(0, $at - $index);
                $votes[$start] = ($votes[$start] ?? 0) + 1;
            }
        }
        // A line that is said a little otherwise votes for several starts beside each other.
        $sums = [];
        foreach ($votes as $start => $count) {
            $sums[$start] =
                $count + ($votes[$start - 1] ?? 0) + ($votes[$start + 1] ?? 0) + ($votes[$start - 2] ?? 0) + ($votes[$start + 2] ?? 0);
        }
        $sums = array_filter($sums, static fn(int $count): bool => $count >= self::LEAST * count($wanted) - 0.001);
        arsort($sums);
        $starts = [];
        $apart = max(1, intdiv(count($wanted), 2));
        foreach (array_keys($sums) as $start) {
            foreach ($starts as $other) {
                if (abs($other - $start) < $apart) {
                    continue 2;
                }
            }
            $starts[] = $start;
        }

        return $starts;
    }

    /**
     * @param  non-empty-list<string>  $wanted
     * @param  list<string>  $keys
     * @return array{from: int, to: int, share: float, said: array<int, int>}|null
     */
    private static function match(array $wanted, array $keys, int $start, int $count): ?array
    {
        $from = max(0, $start - 2);
        $length = (int) ceil(self::LOOSE * count($wanted)) + 4;
        $said = [];
        foreach (WordAlignment::of($wanted, array_slice($keys, $from, min($length, $count - $from))) as $line => $word) {
            $said[$from + $word] = $line;
        }
        $share = count($said) / count($wanted);
        if ($share < self::LEAST) {
            return null;
        }
        ksort($said);
        $said = self::together($said, $wanted, $keys);

        return ['from' => (int) array_key_first($said), 'to' => (int) array_key_last($said), 'share' => $share, 'said' => $said];
    }

    /**
     * A word that is said twice before the next one of the line is the one that stands nearer to it: the first may be the line's before it.
     *
     * @param  array<int, int>  $said  in order
     * @param  non-empty-list<string>  $wanted
     * @param  list<string>  $keys
     * @return array<int, int>
     */
    private static function together(array $said, array $wanted, array $keys): array
    {
        $next = null;
        $near = [];
        foreach (array_reverse($said, true) as $word => $line) {
            $at = $word;
            for ($later = ($next ?? $word) - 1; $next !== null && $later > $word; $later--) {
                if ($keys[$later] === $wanted[$line]) {
                    $at = $later;
                    break;
                }
            }
            $near[$at] = $line;
            $next = $at;
        }
        ksort($near);

        return $near;
    }

    /**
     * @param  list<ScriptLine>  $lines
     * @param  list<Word>  $words
     * @param  list<array{line: int, from: int, to: int, share: float, said: array<int, int>}>  $reads
     * @return list<array{line: int, from: int, to: int, share: float, said: array<int, int>}>
     */
    private static function withoutStray(array $lines, array $words, array $reads): array
    {
        $isShort = array_map(static fn(ScriptLine $line): bool => count($line->keys) < 2, $lines);

        return array_values(
            array_filter($reads, static function (array $read) use ($reads, $words, $isShort): bool {
                if (!$isShort[$read['line']]) {
                    return true;
                }
                foreach ($reads as $other) {
                    $isNeighbour = abs($other['line'] - $read['line']) <= 2 && !$isShort[$other['line']];
                    $isBeside = $other['from'] === $read['to'] + 1 || $other['to'] === $read['from'] - 1;
                    if (
                        $isNeighbour &&
                        $isBeside &&
                        abs($words[$other['from']]->startTicks - $words[$read['from']]->startTicks) < self::NEAR
                    ) {
                        return true;
                    }
                }

                return false;
            }),
        );
    }
}
