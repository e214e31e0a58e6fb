<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** What a word that nobody wrote or said was meant to be: the nearest that somebody did, the likelier of two that are as near. */
final class NearWord
{
    /** Letters from which a word may be meant otherwise, and to which. */
    public const SHORTEST = 4;

    public const LONGEST = 40;

    /** Slips that a word may have: one for each so many letters, and so many in all. */
    private const LETTERS_A_SLIP = 4;

    private const MOST = 2;

    /**
     * @param  string  $typed  folded
     * @param  iterable<string|int, int>  $known  how often each is there, by word, folded
     * @param  bool  $bySound  whether one that sounds the same is as near as one slip, however it is spelled
     * @return string|null null where none is near
     */
    public static function of(string $typed, iterable $known, bool $bySound = false): ?string
    {
        $length = strlen($typed);
        if ($length < self::SHORTEST || $length > self::LONGEST || preg_match('/\d/', $typed) === 1) {
            return null;
        }
        $allowed = min(self::MOST, intdiv($length, self::LETTERS_A_SLIP));
        $sound = $bySound ? metaphone($typed) : '';
        [$best, $least, $most] = [null, $allowed + 1, 0];
        foreach ($known as $word => $times) {
            $word = (string) $word;
            if (abs(strlen($word) - $length) > self::MOST) {
                continue;
            }
            $slips = self::slips($typed, $word);
            $slips = $slips > 1 && $bySound && metaphone($word) === $sound ? 1 : $slips;
            if ($slips < $least || ($slips === $least && $slips <= $allowed && $times > $most)) {
                [$best, $least, $most] = [$word, $slips, $times];
            }
        }

        return $best;
    }

    /** Letters too many, too few or other ones between two words; two that changed places are one slip. */
    private static function slips(string $x, string $y): int
    {
        $distance = levenshtein($x, $y);
        if ($distance !== 2 || strlen($x) !== strlen($y)) {
            return $distance;
        }
        $at = strspn($x ^ $y, "\0");

        return substr($x, $at, 2) === strrev(substr($y, $at, 2)) ? 1 : 2;
    }
}
