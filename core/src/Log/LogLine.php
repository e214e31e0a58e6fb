<?php

declare(strict_types=1);

namespace Cartella\Core\Log;

use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;

/**
 * One typed line of the log, `3A/4 wide, Mara turns, circled`, and what it means.
 *
 * First the slate: `3A/4`, `/4` for another take of the row's setup, `+` for its next take, `=` for the same one, or
 * nothing for the row's own.
 * Then pieces between commas: a shot size, a mark, `#keyword`, `note: text`; what is none of these is what happens.
 */
final readonly class LogLine
{
    private const LENGTH_LIMIT = 500;

    /**
     * @param  Slate|null  $slate  null where the line names none and the row has none
     * @param  array<string, string|bool>  $fields  by the take's field names
     * @param  list<array{is: string, says: string}>  $pieces  in the order typed, as understood
     * @param  list<string>  $problems  what keeps the line from being logged, one sentence each
     * @param  list<string>  $hints  what was taken as words but looks like a slip
     */
    private function __construct(
        public ?Slate $slate,
        public bool $namesSlate,
        public array $fields,
        public array $pieces,
        public array $problems,
        public array $hints,
    ) {}

    /** @param  Slate|null  $row  the slate of the row under the cursor, or of the line before where the row has none */
    public static function parse(string $text, SlateStyle $style, ?Slate $row = null): self
    {
        $text = trim(mb_substr(mb_scrub($text), 0, self::LENGTH_LIMIT));
        [$slate, $named, $rest, $problem] = self::slate($text, $style, $row);
        $pieces = $slate === null || !$named ? [] : [['is' => 'slate', 'says' => $slate->label() . ($slate->isPickup ? ' pick-up' : '')]];
        $fields = $words = $keywords = $notes = $hints = [];
        if ($slate?->isPickup === true && $named) {
            $fields['is_pickup'] = true;
        }
        foreach (preg_split('/\s*(?:,|·|;)\s*/u', $rest) ?: [] as $segment) {
            if ($segment === '') {
                continue;
            }
            $mark = Marks::of($segment);
            $size = ShotSize::of($segment);
            if ($mark !== null) {
                [$fields[$mark[0]], $is] = [$mark[1], $mark[0] === 'status' ? 'status' : 'mark'];
                $pieces[] = ['is' => $is, 'says' => mb_strtolower($segment)];
            } elseif ($size !== null && !isset($fields['size'])) {
                $fields['size'] = $size;
                $pieces[] = ['is' => 'size', 'says' => $size];
            } elseif ($segment[0] === '#') {
                $keywords[] = trim($segment, '# ');
                $pieces[] = ['is' => 'keyword', 'says' => trim($segment, '# ')];
            } elseif (preg_match('/\Anote[: ]\s*(.+)\z/isu', $segment, $part) === 1) {
                $notes[] = $part[1];
                $pieces[] = ['is' => 'note', 'says' => $part[1]];
            } else {
                if (($near = Marks::near($segment)) !== null) {
                    $hints[] = sprintf('"%s" is taken as what happens; did you mean %s?', $segment, $near);
                }
                if ($words === []) {
                    $pieces[] = ['is' => 'happens', 'says' => ''];
                    $at = count($pieces) - 1;
                }
                $words[] = $segment;
                $pieces[$at ?? 0]['says'] = implode(', ', $words);
            }
        }
        $fields += array_filter(
            [
                'description' => implode(', ', $words),
                'keywords' => implode(', ', array_filter($keywords)),
                'notes' => implode('. ', $notes),
            ],
            static fn(string $value): bool => $value !== '',
        );

        return new self($slate, $named, $fields, $pieces, $problem === null ? [] : [$problem], $hints);
    }

    /** @return array{Slate|null, bool, string, string|null} slate, whether the line names it, the rest, what is wrong */
    private static function slate(string $text, SlateStyle $style, ?Slate $row): array
    {
        if (preg_match('/\A(?:[+=]|\/\s*(?<take>\d{1,3})(?<part>[a-z]?))(?=[\s,]|\z)\s*,?\s*/', $text, $found) === 1) {
            if ($row?->setup === null) {
                return [null, true, substr($text, strlen($found[0])), 'The row has no setup to go on from; write it, such as 3A/4.'];
            }
            if ($text[0] === '=') {
                return [$row, true, substr($text, strlen($found[0])), null];
            }
            $take = ($found['take'] ?? '') === '' ? ($row->take ?? 0) + 1 : (int) $found['take'];

            return $take < 1 || $take > 999
                ? [null, true, substr($text, strlen($found[0])), 'A take is a number from 1 to 999.']
                : [new Slate($row->scene, $row->setup, $take, part: $found['part'] ?? ''), true, substr($text, strlen($found[0])), null];
        }
        // A slate may hold one space (`3A T4`, `S12A T3`); the longer reading is tried first.
        if (
            preg_match('/\A(?<long>\S+\s+\S+?)(?=[\s,]|\z)/', $text, $found) === 1 &&
            ($slate = SlateReader::name($found['long'], $style))->isReadable()
        ) {
            return [$slate, true, ltrim(substr($text, strlen($found[0])), " ,\t"), null];
        }
        if (preg_match('/\A(?<first>[^\s,]+)/', $text, $found) !== 1) {
            return [$row, false, $text, null];
        }
        $first = $found['first'];
        $slate = SlateReader::name(
            strtoupper((string) preg_replace('/[a-z]\z/', '', $first)) . (preg_match('/\d([a-z])\z/', $first, $tail) === 1 ? $tail[1] : ''),
            $style,
        );
        if (!$slate->isReadable()) {
            $slate = SlateReader::name($first, $style);
        }
        if ($slate->isReadable()) {
            return [$slate, true, ltrim(substr($text, strlen($first)), " ,\t"), null];
        }
        if (preg_match('/\A(?=.*\d)[A-Za-z0-9]*[\/-][A-Za-z0-9]*\z/', $first) === 1) {
            return [null, true, ltrim(substr($text, strlen($first)), " ,\t"), self::why($first, $style)];
        }

        return [$row, false, $text, null];
    }

    private static function why(string $spelled, SlateStyle $style): string
    {
        [$setup, $take] = preg_split('/[\/-](?=[^\/-]*\z)/', $spelled) + ['', ''];

        return match (true) {
            $setup === '' => sprintf('"%s" has no setup before the stroke.', $spelled),
            !ctype_digit((string) preg_replace('/\A[Tt]|[a-z]\z/', '', $take)) => sprintf(
                '"%s" has no take number after the stroke.',
                $spelled,
            ),
            (int) preg_replace('/\D/', '', $take) === 0 => 'Takes count from 1.',
            $style === SlateStyle::Letter && preg_match('/\d[A-Za-z]*[IOio]/', $setup) === 1 => sprintf(
                '"%s" uses I or O, which slates leave out.',
                $setup,
            ),
            $style === SlateStyle::Number => sprintf('"%s" is not a running slate number.', $setup),
            default => sprintf('"%s" is not a setup; write the scene with its letters, such as 12A.', $setup),
        };
    }
}
