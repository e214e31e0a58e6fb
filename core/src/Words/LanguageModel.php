<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/**
 * Which word follows which, learned from what may be said: a trigram model whose chances are mixed with those of shorter contexts
 * (Jelinek and Mercer), written in the ARPA format that recognisers read.
 *
 * Every word of the vocabulary may follow every other, however unlikely, so that a line that is said otherwise than written is still found.
 */
final class LanguageModel
{
    /** Share of a word's chance that comes from the shorter context, and of the shortest that goes to all words alike. */
    private const SHORTER = 0.12;

    private const EVEN = 0.2;

    /** @var array<string, float> */
    private array $ones = [];

    /** @var array<string, array<string, float>> */
    private array $twos = [];

    /** @var array<string, array<string, float>> by the two words before */
    private array $threes = [];

    /** @param  list<string>  $said  spoken words of one sentence */
    public function learn(array $said, float $weight = 1.0): void
    {
        if ($said === []) {
            return;
        }
        $all = ['<s>', ...$said, '</s>'];
        for ($at = 1, $count = count($all); $at < $count; $at++) {
            $word = $all[$at];
            $this->ones[$word] = ($this->ones[$word] ?? 0.0) + $weight;
            $this->twos[$all[$at - 1]][$word] = ($this->twos[$all[$at - 1]][$word] ?? 0.0) + $weight;
            if ($at >= 2) {
                $before = $all[$at - 2] . ' ' . $all[$at - 1];
                $this->threes[$before][$word] = ($this->threes[$before][$word] ?? 0.0) + $weight;
            }
        }
    }

    /** @return list<string> */
    public function vocabulary(): array
    {
        return array_values(
            array_filter(array_map(strval(...), array_keys($this->ones)), static fn(string $word): bool => $word !== '</s>'),
        );
    }

    public function arpa(): string
    {
        $sum = array_sum($this->ones) ?: 1.0;
        $even = self::EVEN / max(1, count($this->ones));
        $one = [];
        foreach ($this->ones as $word => $count) {
            $one[$word] = ((1 - self::EVEN) * $count) / $sum + $even;
        }
        $two = $three = [];
        foreach ($this->twos as $before => $follows) {
            $two[$before] = self::mixed($follows, $one);
        }
        foreach ($this->threes as $before => $follows) {
            $last = substr((string) $before, (int) strpos((string) $before, ' ') + 1);
            $three[$before] = self::mixed($follows, $two[$last] ?? [], $one);
        }
        $back = static fn(bool $isContext): float => $isContext ? self::SHORTER : 1.0;
        $lines = ['<s>' => self::line(1e-99, '<s>', $back(isset($two['<s>'])))];
        foreach ($one as $word => $chance) {
            $lines[$word] = self::line($chance, (string) $word, $word === '</s>' ? null : $back(isset($two[$word])));
        }
        $pairs = $triples = [];
        foreach ($two as $before => $follows) {
            foreach ($follows as $word => $chance) {
                $pairs[] = self::line($chance, "$before $word", $word === '</s>' ? null : $back(isset($three["$before $word"])));
            }
        }
        foreach ($three as $before => $follows) {
            foreach ($follows as $word => $chance) {
                $triples[] = self::line($chance, "$before $word", null);
            }
        }

        return sprintf("\\data\\\nngram 1=%d\nngram 2=%d\nngram 3=%d\n\n", count($lines), count($pairs), count($triples)) .
            "\\1-grams:\n" .
            implode('', $lines) .
            "\n\\2-grams:\n" .
            implode('', $pairs) .
            "\n\\3-grams:\n" .
            implode('', $triples) .
            "\n\\end\\\n";
    }

    /**
     * @param  array<string, float>  $follows  counts
     * @param  array<string, float>  $lower  chances of the shorter context
     * @param  array<string, float>  $lowest  of the shortest, where that has none
     * @return array<string, float>
     */
    private static function mixed(array $follows, array $lower, array $lowest = []): array
    {
        $sum = array_sum($follows);
        $chances = [];
        foreach ($follows as $word => $count) {
            $chances[$word] =
                ((1 - self::SHORTER) * $count) / $sum + self::SHORTER * ($lower[$word] ?? self::SHORTER * ($lowest[$word] ?? 0.0));
        }

        return $chances;
    }

    private static function line(float $chance, string $words, ?float $back): string
    {
        return sprintf(
            "%.4f %s%s\n",
            $chance <= 1e-90 ? -99 : log10(max($chance, 1e-9)),
            $words,
            $back === null ? '' : sprintf(' %.4f', log10($back)),
        );
    }

    /** How much was learned, words times their weights. */
    public function weight(): float
    {
        return array_sum($this->ones);
    }
}
