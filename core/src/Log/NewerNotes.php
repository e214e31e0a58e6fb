<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

/**
 * Whether a file of notes is a newer version of an older one. Corrected notes come under a new name as often as under the
 * old one, so they are known by their words: those that say again most of what an older file said of the same takes.
 */
final class NewerNotes
{
    /** What of the words on what both speak of is the same in a newer version, at least. */
    private const SAME = 0.5;

    /** What of an older file's words a newer version speaks of again, at least. */
    private const COVERED = 0.5;

    /** A name without what marks it as a newer version. */
    private const VERSION = '/(?:[ _.-]*(?:\(\d+\)|(?:v(?:er(?:sion)?)?|rev)[ ._-]?\d+|corr(?:ected)?|final|fixed|new|neu|copy))+\z/i';

    /**
     * @param  string  $name  of the file, as it came
     * @param  array<string, array{same: int, differ: int, all: int}>  $others  of each older file: words that both say alike, words that
     *     they say otherwise, and all of the older one's words
     * @return string|null the one that it is a newer version of
     */
    public static function of(string $name, array $others): ?string
    {
        $best = null;
        foreach ($others as $other => ['same' => $same, 'differ' => $differ, 'all' => $all]) {
            $both = $same + $differ;
            $isAlike = $same >= self::SAME * $both || self::stem((string) $other) === self::stem($name);
            if ($both >= self::COVERED * $all && $isAlike && $both > ($best[1] ?? 0)) {
                $best = [(string) $other, $both];
            }
        }

        return $best[0] ?? null;
    }

    private static function stem(string $name): string
    {
        $name = (string) preg_replace('/\.[A-Za-z0-9]{2,4}(?= \(\d+\)\z|\z)/', '', mb_strtolower($name));

        return (string) preg_replace(self::VERSION, '', trim($name));
    }
}
