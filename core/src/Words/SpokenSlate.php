<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Time\Ticks;

/**
 * What the floor calls out, in a clip's words: the slate (`scene twelve alpha take two`, `slate one four five take three`), the call for
 * action and the one that ends the take. Ticks from the clip's start.
 *
 * A slate is one only with its take; calls are ones only where they stand by themselves. Confidence is that of the least sure word.
 */
final readonly class SpokenSlate
{
    /** Words that spell a letter, besides the letter's own name. */
    private const LETTERS = [
        'alpha' => 'A',
        'alfa' => 'A',
        'apple' => 'A',
        'able' => 'A',
        'bravo' => 'B',
        'baker' => 'B',
        'banana' => 'B',
        'charlie' => 'C',
        'delta' => 'D',
        'dog' => 'D',
        'david' => 'D',
        'echo' => 'E',
        'easy' => 'E',
        'edward' => 'E',
        'foxtrot' => 'F',
        'fox' => 'F',
        'frank' => 'F',
        'golf' => 'G',
        'george' => 'G',
        'hotel' => 'H',
        'harry' => 'H',
        'henry' => 'H',
        'juliet' => 'J',
        'john' => 'J',
        'kilo' => 'K',
        'king' => 'K',
        'lima' => 'L',
        'larry' => 'L',
        'mike' => 'M',
        'mary' => 'M',
        'november' => 'N',
        'nancy' => 'N',
        'papa' => 'P',
        'peter' => 'P',
        'quebec' => 'Q',
        'queen' => 'Q',
        'romeo' => 'R',
        'robert' => 'R',
        'roger' => 'R',
        'sierra' => 'S',
        'sam' => 'S',
        'sugar' => 'S',
        'tango' => 'T',
        'tom' => 'T',
        'uniform' => 'U',
        'victor' => 'V',
        'whiskey' => 'W',
        'william' => 'W',
        'x-ray' => 'X',
        'xray' => 'X',
        'yankee' => 'Y',
        'young' => 'Y',
        'zulu' => 'Z',
        'zebra' => 'Z',
    ];

    private const NUMBERS = [
        'zero' => 0,
        'oh' => 0,
        'one' => 1,
        'two' => 2,
        'three' => 3,
        'four' => 4,
        'five' => 5,
        'six' => 6,
        'seven' => 7,
        'eight' => 8,
        'nine' => 9,
        'ten' => 10,
        'eleven' => 11,
        'twelve' => 12,
        'thirteen' => 13,
        'fourteen' => 14,
        'fifteen' => 15,
        'sixteen' => 16,
        'seventeen' => 17,
        'eighteen' => 18,
        'nineteen' => 19,
        'twenty' => 20,
        'thirty' => 30,
        'forty' => 40,
        'fifty' => 50,
        'sixty' => 60,
        'seventy' => 70,
        'eighty' => 80,
        'ninety' => 90,
    ];

    /** What sounds like a number where nothing but one can stand. */
    private const ALIKE = ['won' => 'one', 'to' => 'two', 'too' => 'two', 'for' => 'four', 'ate' => 'eight', 'o' => 'oh'];

    private const HEADS = ['scene', 'slate', 'shot', 'setup', 'roll'];

    /** Words that a call may consist of. */
    private const WITH_ACTION = ['and', 'action', 'ready', 'set', 'okay', 'playback', 'background'];

    private const WITH_CUT = ['and', 'cut', 'okay', 'it', 'there', 'thank', 'thanks', 'you', 'great', 'good', 'lovely'];

    /** Quiet around a call, ticks, and the words that one has at most. */
    private const APART = Ticks::PER_SECOND / 5;

    private const CALL_WORDS = 5;

    private function __construct(
        public ?Slate $slate,
        public ?int $slateTicks,
        public ?float $slateConfidence,
        /** @var list<array{ticks: int, confidence: float|null}> every call for action, in order */
        public array $actions,
        public ?int $cutTicks,
    ) {}

    /**
     * Slates that the floor may call, for the model of a clip.
     *
     * @param  list<string>  $scenes  of the script; none means any
     * @return list<list<string>> spoken words of each
     */
    public static function calls(array $scenes, SlateStyle $style): array
    {
        $calls = [];
        $letters = array_unique([...range('a', 'h'), ...range('j', 'n'), ...range('p', 'z'), ...array_keys(self::LETTERS)]);
        $letters = array_values(array_filter($letters, static fn(string $one): bool => !str_contains($one, '-')));
        $numbers = array_values(
            array_unique(array_filter(array_map(static fn(string $one): int => (int) preg_replace('/\D/', '', $one), $scenes))),
        );
        $isKnown = $numbers !== [];
        $numbers = $isKnown ? $numbers : range(1, 60);
        foreach (range(1, 30) as $turn => $take) {
            foreach ($numbers as $index => $number) {
                if (!$isKnown && ($index + $turn) % 6 !== 0) {
                    continue;
                }
                $said = SpokenText::number(max(1, $number));
                $head = ['scene', 'slate'][($index + $turn) % 2];
                $letter = $letters[($index * 7 + $turn) % count($letters)];
                $tail = ['take', ...SpokenText::number($take)];
                $calls[] = [$head, ...$said, ...$tail];
                $calls[] = [...$said, $letter, ...$tail];
                $calls[] = [$head, ...$said, $letter, ...$tail];
            }
        }
        if ($style === SlateStyle::Number) {
            foreach (range(1, 200) as $number) {
                $calls[] = [
                    'slate',
                    ...SpokenText::digits((string) (($number * 37) % 1000)),
                    'take',
                    ...SpokenText::number(1 + ($number % 20)),
                ];
                $calls[] = ['slate', ...SpokenText::number($number), 'take', ...SpokenText::number(1 + ($number % 20))];
            }
        }

        return $calls;
    }

    /** @return list<list<string>> calls that are no slate */
    public static function otherCalls(): array
    {
        return array_map(static fn(string $call): array => explode(' ', $call), [
            ...array_merge(...array_fill(0, 6, ['action', 'and action', 'cut', 'and cut'])),
            ...['ready and action', 'cut it there', 'cut thank you', 'end slate', 'tail slate'],
            ...['end board', 'mark', 'mark it', 'sound speed', 'speed', 'rolling', 'camera rolling', 'set', 'pick up', 'going again'],
            ...['second sticks', 'common marker', 'a mark', 'b mark', 'quiet please', 'stand by'],
        ]);
    }

    /**
     * @param  list<Word>  $words
     * @param  list<string>  $scenes  of the script: a slate of one of them is likelier than it was heard, one of another less
     */
    public static function of(array $words, SlateStyle $style = SlateStyle::Letter, array $scenes = []): self
    {
        $keys = array_map(static fn(Word $word): string => SpokenText::key($word->text), $words);
        [$slate, $from, $to] = self::slate($words, $keys, $style);
        $actions = self::allCalls($words, $keys, 'action', self::WITH_ACTION, 0);
        $cuts = self::allCalls($words, $keys, 'cut', self::WITH_CUT, $actions === [] ? 0 : $actions[0] + 1);
        $cut = $cuts === [] ? null : $cuts[count($cuts) - 1];

        return new self(
            $slate,
            $slate === null ? null : $words[$from]->startTicks,
            $slate === null ? null : self::judged($slate, self::least(array_slice($words, $from, $to - $from + 1)), $scenes),
            array_map(static fn(int $at): array => ['ticks' => $words[$at]->startTicks, 'confidence' => $words[$at]->confidence], $actions),
            $cut === null ? null : $words[$cut]->startTicks,
        );
    }

    /**
     * The words of a stretch that the floor calls out: those of a slate, and of a call if it is nothing else.
     *
     * @param  list<Word>  $words
     * @return list<int> indexes
     */
    public static function calledWords(array $words, SlateStyle $style): array
    {
        $keys = array_map(static fn(Word $word): string => SpokenText::key($word->text), $words);
        [$slate, $from, $to] = self::slate($words, $keys, $style);
        $called = $slate === null ? [] : range($from, $to);
        $known = array_merge(...self::otherCalls(), ...[self::WITH_ACTION, self::WITH_CUT]);
        $rest = array_diff_key($keys, array_flip($called));
        // Around a slate, or by themselves.
        if (array_diff($rest, $known) === [] && ($called !== [] || count($rest) <= self::CALL_WORDS)) {
            return array_keys($keys);
        }

        return $called;
    }

    /** @param  list<string>  $scenes */
    private static function judged(Slate $slate, ?float $confidence, array $scenes): ?float
    {
        return match (true) {
            $confidence === null || $scenes === [] || $slate->scene === null => $confidence,
            in_array($slate->scene, $scenes, true) => round(1 - 0.5 * (1 - $confidence), 3),
            default => round(0.5 * $confidence, 3),
        };
    }

    /** @param  list<Word>  $words */
    private static function least(array $words): ?float
    {
        $known = array_filter(array_column($words, 'confidence'), static fn(?float $one): bool => $one !== null);

        return $known === [] ? null : min($known);
    }

    /**
     * @param  list<Word>  $words
     * @param  list<string>  $keys
     * @return array{Slate|null, int, int} with its first and last word
     */
    private static function slate(array $words, array $keys, SlateStyle $style): array
    {
        foreach ($keys as $at => $key) {
            if ($key !== 'take') {
                continue;
            }
            [$take, $end] = self::number($words, $keys, $at + 1, true);
            if ($take === null || (int) $take < 1 || (int) $take > 199) {
                continue;
            }
            // Backwards: letters, then the number, then perhaps what it is called.
            $begin = $at - 1;
            $letters = '';
            while ($begin >= 0 && strlen($letters) < 2 && ($letter = self::letter($keys, $begin)) !== null) {
                $letters = $letter . $letters;
                $begin--;
            }
            $first = $begin;
            while ($first >= 0 && $begin - $first < 6 && self::isNumber($keys[$first])) {
                $first--;
            }
            $first++;
            if ($first > $begin) {
                continue;
            }
            [$number, $last] = self::number($words, $keys, $first, false);
            if ($number === null || $last !== $begin || self::hasGap($words, $first, $end)) {
                continue;
            }
            $from = $first > 0 && in_array($keys[$first - 1], self::HEADS, true) ? $first - 1 : $first;
            $isPickup = ($keys[$end + 1] ?? '') === 'pickup' || (($keys[$end + 1] ?? '') === 'pick' && ($keys[$end + 2] ?? '') === 'up');
            $slate = SlateReader::checked(null, $number . $letters, $take, null, $style, '', $isPickup);
            if ($slate === null) {
                continue;
            }

            return [$slate, $from, $end];
        }

        return [null, 0, 0];
    }

    /** @param  list<Word>  $words  whether somebody stopped between two of them for longer than a slate is called */
    private static function hasGap(array $words, int $from, int $to): bool
    {
        for ($at = $from; $at < $to; $at++) {
            if ($words[$at + 1]->startTicks - $words[$at]->endTicks > 2 * Ticks::PER_SECOND) {
                return true;
            }
        }

        return false;
    }

    /** @param  list<string>  $keys */
    private static function letter(array $keys, int $at): ?string
    {
        $key = $keys[$at];

        return match (true) {
            isset(self::LETTERS[$key]) => self::LETTERS[$key],
            preg_match('/\A[a-hj-np-z]\z/', rtrim($key, '.')) === 1 => strtoupper($key[0]),
            default => null,
        };
    }

    private static function isNumber(string $key): bool
    {
        return isset(self::NUMBERS[$key]) || $key === 'hundred' || $key === 'and' || preg_match('/\A\d{1,4}\z/', $key) === 1;
    }

    /**
     * A number as it is called: `twenty one`, `one hundred and two`, `one four five`, `one oh two`, `one twelve`.
     *
     * @param  list<Word>  $words
     * @param  list<string>  $keys
     * @param  bool  $isOnly  nothing but a number can stand there, so that what sounds like one is one
     * @return array{string|null, int} its digits, and its last word
     */
    private static function number(array $words, array $keys, int $at, bool $isOnly): array
    {
        $digits = '';
        $last = $at - 1;
        $open = null;
        for ($count = count($keys); $at < $count && strlen($digits) < 5; $at++) {
            $key = $isOnly && $open === null && $digits === '' ? self::ALIKE[$keys[$at]] ?? $keys[$at] : $keys[$at];
            if (
                $last >= 0 &&
                $last === $at - 1 &&
                ($open !== null || $digits !== '') &&
                $words[$at]->startTicks - $words[$last]->endTicks > Ticks::PER_SECOND
            ) {
                break;
            }
            if (preg_match('/\A\d{1,4}\z/', $key) === 1) {
                $digits .= ($open === null ? '' : (string) $open) . $key;
                $open = null;
            } elseif ($key === 'hundred' && $open !== null && $open < 10) {
                $open *= 100;
            } elseif ($key === 'and' && $open !== null && $open >= 100 && isset(self::NUMBERS[$keys[$at + 1] ?? ''])) {
                continue;
            } elseif (isset(self::NUMBERS[$key])) {
                $value = self::NUMBERS[$key];
                $isPart =
                    $open !== null &&
                    (($open >= 20 && $open % 10 === 0 && $value > 0 && $value < 10 && $open % 100 !== 0) ||
                        ($open >= 100 && $open % 100 === 0 && $value > 0));
                if ($open !== null && !$isPart) {
                    $digits .= $open;
                    $open = null;
                }
                $open = $isPart ? (int) $open + $value : $value;
            } else {
                break;
            }
            $last = $at;
        }
        $digits .= $open === null ? '' : (string) $open;

        return [$digits === '' ? null : $digits, $last];
    }

    /**
     * @param  list<Word>  $words
     * @param  list<string>  $keys
     * @param  list<string>  $with  words that may stand beside it
     * @return list<int> places of the calls
     */
    private static function allCalls(array $words, array $keys, string $call, array $with, int $from): array
    {
        $found = [];
        for ($at = $from, $count = count($keys); $at < $count; $at++) {
            if ($keys[$at] !== $call) {
                continue;
            }
            // Outwards as far as it goes on without a breath.
            $first = $last = $at;
            while (
                $first > 0 &&
                $words[$first]->startTicks - $words[$first - 1]->endTicks < self::APART &&
                $at - $first < self::CALL_WORDS
            ) {
                $first--;
            }
            while (
                $last + 1 < $count &&
                $words[$last + 1]->startTicks - $words[$last]->endTicks < self::APART &&
                $last - $at < self::CALL_WORDS
            ) {
                $last++;
            }
            if ($last - $first < self::CALL_WORDS && array_diff(array_slice($keys, $first, $last - $first + 1), $with) === []) {
                $found[] = $at;
            }
        }

        return $found;
    }

    /** @return array{scene: ?string, setup: ?string, take: ?int, at_ticks: int, confidence: ?float}|null */
    public function toArray(): ?array
    {
        return $this->slate === null
            ? null
            : [
                'scene' => $this->slate->scene,
                'setup' => $this->slate->setup,
                'take' => $this->slate->take,
                'at_ticks' => (int) $this->slateTicks,
                'confidence' => $this->slateConfidence,
            ];
    }
}
