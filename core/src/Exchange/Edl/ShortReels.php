<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Edl;

use Cartella\Core\Cutting\Sequence;

/**
 * Reels as an edit decision list can name them: at most 8 letters, digits, `_`, `-` or `.`, no two alike, also not for
 * those who take capitals for the same. `AX` stands for a source without a reel and `BL` for black, so no reel is named so.
 */
final class ShortReels
{
    public const LENGTH = 8;

    /** A source without a reel. */
    public const NONE = 'AX';

    public const BLACK = 'BL';

    /** @return array<string, string> the short name by the reel; one that fits keeps its own */
    public static function of(Sequence $sequence): array
    {
        $reels = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                if ($item->source->reel !== null) {
                    $reels[$item->source->reel] = true;
                }
            }
        }
        $short = [];
        $taken = [strtolower(self::NONE) => true, strtolower(self::BLACK) => true];
        // Those that fit come first: a long one gives way to them, wherever it stands.
        foreach ([true, false] as $fits) {
            foreach (array_keys($reels) as $reel) {
                $reel = (string) $reel;
                $plain = (string) preg_replace('/[^A-Za-z0-9_.-]/', '_', $reel);
                if (($plain === $reel && strlen($plain) <= self::LENGTH) !== $fits) {
                    continue;
                }
                $name = substr($plain === '' ? '_' : $plain, 0, self::LENGTH);
                for ($number = 2; isset($taken[strtolower($name)]); $number++) {
                    $name = substr($plain, 0, self::LENGTH - 1 - strlen((string) $number)) . "_$number";
                }
                $taken[strtolower($name)] = true;
                $short[$reel] = $name;
            }
        }

        return $short;
    }
}
