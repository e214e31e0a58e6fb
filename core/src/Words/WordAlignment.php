<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/**
 * Which word of one text is which of another, in order: what diff programs do, word by word, where spellings that are nearly the same
 * count as the same.
 *
 * Runs of words that stand once in both texts are anchors; what lies between them is compared in full. Cost grows with the texts'
 * length, and with the square only of what lies between anchors, up to a bound.
 */
final class WordAlignment
{
    /** Products of lengths up to which two pieces are compared in full. */
    private const FULL = 400_000;

    /** Likeness from which two spellings may be one word. */
    public const ALIKE = 0.6;

    /**
     * @param  list<string>  $x  keys ({@see SpokenText::key})
     * @param  list<string>  $y
     * @return array<int, int> by index of `$x`, the index of `$y`; what has no counterpart is left out
     */
    public static function of(array $x, array $y): array
    {
        $pairs = [];
        self::align($x, 0, count($x), $y, 0, count($y), $pairs, 3);
        ksort($pairs);

        return $pairs;
    }

    /**
     * @param  list<string>  $x
     * @param  list<string>  $y
     * @param  array<int, int>  $pairs
     */
    private static function align(array $x, int $fromX, int $toX, array $y, int $fromY, int $toY, array &$pairs, int $run): void
    {
        // What both begin and end with needs no search.
        while ($fromX < $toX && $fromY < $toY && $x[$fromX] === $y[$fromY]) {
            $pairs[$fromX++] = $fromY++;
        }
        while ($fromX < $toX && $fromY < $toY && $x[$toX - 1] === $y[$toY - 1]) {
            $pairs[--$toX] = --$toY;
        }
        if ($fromX >= $toX || $fromY >= $toY) {
            return;
        }
        if (($toX - $fromX) * ($toY - $fromY) <= self::FULL) {
            self::full($x, $fromX, $toX, $y, $fromY, $toY, $pairs);

            return;
        }
        $anchors = $run === 0 ? [] : self::anchors($x, $fromX, $toX, $y, $fromY, $toY, $run);
        if ($anchors === []) {
            if ($run > 0) {
                self::align($x, $fromX, $toX, $y, $fromY, $toY, $pairs, $run - 1);
            }

            return;
        }
        foreach ([...$anchors, [$toX, $toY]] as [$atX, $atY]) {
            if ($atX < $fromX || $atY < $fromY) {
                continue;
            }
            self::align($x, $fromX, $atX, $y, $fromY, $atY, $pairs, $run);
            if ($atX < $toX && $atY < $toY) {
                $pairs[$atX] = $atY;
            }
            $fromX = $atX + 1;
            $fromY = $atY + 1;
        }
    }

    /**
     * Runs of words that stand once in each, of which those are kept that stand in the same order in both.
     *
     * @param  list<string>  $x
     * @param  list<string>  $y
     * @return list<array{int, int}>
     */
    private static function anchors(array $x, int $fromX, int $toX, array $y, int $fromY, int $toY, int $run): array
    {
        $placesX = self::single($x, $fromX, $toX, $run);
        $common = array_intersect_key($placesX, self::single($y, $fromY, $toY, $run));
        $placesY = self::single($y, $fromY, $toY, $run);
        asort($common);
        // The longest chain that rises in both (patience sorting).
        $piles = $tops = $before = [];
        foreach ($common as $key => $atX) {
            $atY = $placesY[$key];
            $low = 0;
            for ($high = count($tops); $low < $high; ) {
                $middle = intdiv($low + $high, 2);
                $tops[$middle][1] < $atY ? ($low = $middle + 1) : ($high = $middle);
            }
            $tops[$low] = [$atX, $atY];
            $before["$atX"] = $low > 0 ? $piles[$low - 1] : null;
            $piles[$low] = [$atX, $atY];
        }
        $chain = [];
        for ($at = $piles === [] ? null : $piles[count($piles) - 1]; $at !== null; $at = $before["{$at[0]}"]) {
            $chain[] = $at;
        }

        return array_reverse($chain);
    }

    /**
     * @param  list<string>  $words
     * @return array<string, int> where each run stands that stands once
     */
    private static function single(array $words, int $from, int $to, int $run): array
    {
        $places = [];
        for ($at = $from; $at + $run <= $to; $at++) {
            $key = implode(' ', array_slice($words, $at, $run));
            $places[$key] = isset($places[$key]) ? -1 : $at;
        }

        return array_filter($places, static fn(int $at): bool => $at >= 0);
    }

    /**
     * @param  list<string>  $x
     * @param  list<string>  $y
     * @param  array<int, int>  $pairs
     */
    private static function full(array $x, int $fromX, int $toX, array $y, int $fromY, int $toY, array &$pairs): void
    {
        $columns = $toY - $fromY;
        $above = range(0.0, (float) $columns);
        $ways = [];
        for ($i = $fromX; $i < $toX; $i++) {
            $row = [$above[0] + 1];
            $way = 'u';
            for ($j = 0; $j < $columns; $j++) {
                $likeness = $x[$i] === $y[$fromY + $j] ? 1.0 : SpokenText::likeness($x[$i], $y[$fromY + $j]);
                // A pair that is nothing alike costs as much as both words by themselves: it is none.
                $pair = $above[$j] + ($likeness >= self::ALIKE ? 1.2 * (1 - $likeness) : 2.0);
                $up = $above[$j + 1] + 1;
                $left = $row[$j] + 1;
                if ($pair <= $up && $pair <= $left && $likeness >= self::ALIKE) {
                    $row[] = $pair;
                    $way .= 'p';
                } elseif ($up <= $left) {
                    $row[] = $up;
                    $way .= 'u';
                } else {
                    $row[] = $left;
                    $way .= 'l';
                }
            }
            $ways[] = $way;
            $above = $row;
        }
        for ($i = $toX - $fromX, $j = $columns; $i > 0 && $j > 0; ) {
            match ($ways[$i - 1][$j]) {
                'p' => ($pairs[$fromX + --$i] = $fromY + --$j),
                'u' => $i--,
                default => $j--,
            };
        }
    }
}
