<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

use Cartella\Core\Fields\TakeStatus;

/** The words for what a take is, as people type and print them: circled, hold, NG, MOS, tail slate and so on. */
final class Marks
{
    /** Spellings in small letters to the field they set and its value. */
    private const WORDS = [
        'circled' => ['status', TakeStatus::Circled->value],
        'circle' => ['status', TakeStatus::Circled->value],
        'circ' => ['status', TakeStatus::Circled->value],
        'print' => ['status', TakeStatus::Circled->value],
        'printed' => ['status', TakeStatus::Circled->value],
        'good' => ['status', TakeStatus::Circled->value],
        'ok' => ['status', TakeStatus::Circled->value],
        'hold' => ['status', TakeStatus::Hold->value],
        'held' => ['status', TakeStatus::Hold->value],
        'ng' => ['status', TakeStatus::NoGood->value],
        'n.g.' => ['status', TakeStatus::NoGood->value],
        'n/g' => ['status', TakeStatus::NoGood->value],
        'no good' => ['status', TakeStatus::NoGood->value],
        'bad' => ['status', TakeStatus::NoGood->value],
        'no mark' => ['status', TakeStatus::None->value],
        'mos' => ['is_mos', true],
        'mute' => ['is_mos', true],
        'silent' => ['is_mos', true],
        'tail' => ['is_tail_slate', true],
        'tail slate' => ['is_tail_slate', true],
        'tail-slate' => ['is_tail_slate', true],
        'ts' => ['is_tail_slate', true],
        'end slate' => ['is_tail_slate', true],
        'wild' => ['is_wild', true],
        'wild track' => ['is_wild', true],
        'wt' => ['is_wild', true],
        'false start' => ['is_false_start', true],
        'false' => ['is_false_start', true],
        'pick-up' => ['is_pickup', true],
        'pickup' => ['is_pickup', true],
        'pick up' => ['is_pickup', true],
        'pu' => ['is_pickup', true],
        'p/u' => ['is_pickup', true],
        'guide only' => ['is_guide_only', true],
        'guide' => ['is_guide_only', true],
    ];

    /** @return array{0: string, 1: string|bool}|null field and value; null for any other word */
    public static function of(string $text): ?array
    {
        return self::WORDS[trim(mb_strtolower((string) preg_replace('/\s+/u', ' ', $text)))] ?? null;
    }

    /** @return array<string, array{0: string, 1: string|bool}> every spelling, for a page that reads cells before it sends them */
    public static function words(): array
    {
        return self::WORDS;
    }

    /** The mark that a mistyped word is near to, to ask about; null when it is near to none. */
    public static function near(string $text): ?string
    {
        $word = mb_strtolower(trim($text));
        if (strlen($word) < 4 || strlen($word) > 12 || preg_match('/\A[a-z -]+\z/', $word) !== 1) {
            return null;
        }
        foreach (['circled', 'hold', 'no good', 'tail slate', 'false start', 'pick-up', 'wild track'] as $known) {
            $far = levenshtein($word, $known);
            if ($far > 0 && $far <= (strlen($known) > 5 ? 2 : 1)) {
                return $known;
            }
        }

        return null;
    }
}
