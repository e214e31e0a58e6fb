<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Time\Ticks;

/**
 * Which channel is listened to, when: for each stretch between pauses the one on which it stands out most, and whose microphone that is.
 *
 * A channel that is called after a radio microphone (`lav Mara`, `Radio 2 Tobias`) is a speaker's where its own voice is as
 * loud on it as it usually is, and on no other such channel louder. Timecode, tones and what is silent are not listened to.
 */
final readonly class Listening
{
    /** Ticks of quiet between stretches, around them, and the longest that is recognised at once. */
    private const PAUSE = Ticks::PER_SECOND / 4;

    private const AROUND = Ticks::PER_SECOND / 5;

    private const TOGETHER = (Ticks::PER_SECOND * 6) / 5;

    private const LONGEST = 20 * Ticks::PER_SECOND;

    /** Quiet between two words that shows where the first ends and the second begins, and how far a recogniser may be off. */
    private const BREATH = Ticks::PER_SECOND / 12;

    private const OFF = Ticks::PER_SECOND / 4;

    private const SHORTEST = Ticks::PER_SECOND / 10;

    /** Decibels between quiet and loud under which a channel says nothing; under a speaker's usual level; between two speakers. */
    private const SAYS_NOTHING = 8.0;

    private const FAINT = -75.0;

    private const OWN = 12.0;

    private const LOUDER = 3.0;

    /** What a radio microphone is called besides whose it is. */
    private const RADIO = '/\b(?:lav(?:alier)?s?|radio|rf|tx|rx|wireless|lapel|body ?pack|body|wire|mic|trk|track)\b|\d+/iu';

    private const NO_RADIO =
        '/\b(?:boom|mix|iso mix|plant|amb(?:ience|ient)?|room|stereo|ms|m\/s' .
        '|guide|cam(?:era)?|ltc|tc|timecode|ch(?:annel)?|left|right|l|r|pa|desk)\b/iu';

    /** @param  list<array{channel: int, from: int, to: int, speaker: ?string}>  $units  ticks, in order */
    private function __construct(public array $units, private Pauses $breaths) {}

    /**
     * @param  Levels  $levels  of all channels
     * @param  list<int>  $channels  from 1, that may be listened to
     * @param  array<int, string>  $names  of channels, by number
     */
    public static function plan(Levels $levels, array $channels, array $names): self
    {
        $smooth = $levels->smoothed((int) max(1, round(Ticks::PER_SECOND / 40 / $levels->stepTicks)));
        $floor = $loud = $usual = [];
        foreach ($channels as $channel) {
            $floor[$channel] = $smooth->share($channel - 1, 0.05);
            // Nobody need speak for long: a second in all is enough to know how loud it is.
            $second = Ticks::PER_SECOND / $levels->stepTicks / max(1, $levels->steps());
            $loud[$channel] = $smooth->share($channel - 1, max(0.95, 1 - $second));
            $usual[$channel] = $smooth->shareOver($channel - 1, $floor[$channel] + self::SAYS_NOTHING, 0.9);
        }
        $heard = array_values(
            array_filter(
                $channels,
                static fn(int $one): bool => $loud[$one] - $floor[$one] >= self::SAYS_NOTHING && $loud[$one] > self::FAINT,
            ),
        );
        if ($heard === []) {
            return new self([], Pauses::of($levels->only($channels === [] ? [1] : $channels)));
        }
        $pauses = Pauses::of($levels->only($heard), null, (int) self::PAUSE);
        $radios = array_filter(array_map(self::owner(...), array_intersect_key($names, array_flip($heard))));
        $units = [];
        foreach ($pauses->speech as [$from, $to]) {
            foreach (self::cut($smooth, $from, $to) as [$begin, $end]) {
                if ($end - $begin < self::SHORTEST) {
                    continue;
                }
                [$first, $last] = [$smooth->step($begin), max($smooth->step($begin) + 1, $smooth->step($end))];
                $best = null;
                $most = -INF;
                $level = [];
                foreach ($heard as $channel) {
                    $level[$channel] = $smooth->mean($channel - 1, $first, $last);
                    $over = $level[$channel] - max($floor[$channel], -70.0);
                    if ($over > $most) {
                        [$best, $most] = [$channel, $over];
                    }
                }
                $units[] = ['channel' => (int) $best, 'from' => $begin, 'to' => $end, 'speaker' => self::speaker($radios, $level, $usual)];
            }
        }

        return new self(
            self::together($units, $levels->ticks($levels->steps())),
            Pauses::of($levels->only($heard), null, (int) self::BREATH),
        );
    }

    /**
     * Words with their edges where the sound has them: at its first and last loud moment, where quiet stands before or behind a word.
     *
     * @param  list<Word>  $words
     * @return list<Word> in order
     */
    public function snapped(array $words): array
    {
        usort($words, static fn(Word $x, Word $y): int => $x->startTicks <=> $y->startTicks);
        $at = 0;
        foreach ($this->breaths->speech as [$from, $to]) {
            while ($at < count($words) && $words[$at]->endTicks <= $from) {
                $at++;
            }
            $first = $at;
            while ($at < count($words) && intdiv($words[$at]->startTicks + $words[$at]->endTicks, 2) < $to) {
                $at++;
            }
            if ($at === $first) {
                continue;
            }
            $last = $at - 1;
            if (abs($words[$first]->startTicks - $from) <= self::OFF && $from < $words[$first]->endTicks) {
                $words[$first] = $words[$first]->at(max($from, $first > 0 ? $words[$first - 1]->endTicks : 0), $words[$first]->endTicks);
            }
            if (abs($words[$last]->endTicks - $to) <= self::OFF && $to > $words[$last]->startTicks) {
                $words[$last] = $words[$last]->at(
                    $words[$last]->startTicks,
                    isset($words[$at]) ? min($to, max($words[$at]->startTicks, $words[$last]->endTicks)) : $to,
                );
            }
        }

        return $words;
    }

    /** Whose radio microphone a channel is by its name; null where it is none, or says no name. */
    public static function owner(string $name): ?string
    {
        $name = (string) preg_replace('/[_#:.()-]+|(?<=\pL)(?=\d)|(?<=\d)(?=\pL)/u', ' ', $name);
        if (preg_match(self::NO_RADIO, $name) === 1) {
            return null;
        }
        $rest = trim((string) preg_replace('/\s+/', ' ', (string) preg_replace(self::RADIO, ' ', $name)));

        return $rest === '' || mb_strlen($rest) < 2 ? null : mb_convert_case(mb_substr($rest, 0, 40), MB_CASE_TITLE);
    }

    /**
     * @param  array<int, string>  $radios  whose, by channel
     * @param  array<int, float>  $level
     * @param  array<int, float>  $usual
     */
    private static function speaker(array $radios, array $level, array $usual): ?string
    {
        $over = [];
        foreach ($radios as $channel => $owner) {
            $over[$channel] = $level[$channel] - $usual[$channel];
        }
        if ($over === []) {
            return null;
        }
        arsort($over);
        [$first, $second] = [(int) array_key_first($over), array_values($over)[1] ?? -INF];

        return $over[$first] >= -self::OWN && $over[$first] - $second >= self::LOUDER ? $radios[$first] : null;
    }

    /**
     * A long stretch in pieces, cut where it is quietest.
     *
     * @return list<array{int, int}>
     */
    private static function cut(Levels $smooth, int $from, int $to): array
    {
        if ($to - $from <= self::LONGEST) {
            return [[$from, $to]];
        }
        // In the second half of what can be recognised at once.
        $begin = $smooth->step($from + intdiv(self::LONGEST, 2));
        $end = $smooth->step(min($to - Ticks::PER_SECOND, $from + self::LONGEST));
        $least = INF;
        $at = $end;
        for ($step = $begin; $step < $end; $step++) {
            $loudest = max(array_map(static fn(int $channel): float => $smooth->at($channel, $step), array_keys($smooth->channels)));
            if ($loudest < $least) {
                [$least, $at] = [$loudest, $step];
            }
        }

        return [[$from, $smooth->ticks($at)], ...self::cut($smooth, $smooth->ticks($at), $to)];
    }

    /**
     * Stretches of one channel that follow each other are recognised at once: a recogniser learns the room from what it hears.
     *
     * @param  list<array{channel: int, from: int, to: int, speaker: ?string}>  $units
     * @return list<array{channel: int, from: int, to: int, speaker: ?string}>
     */
    private static function together(array $units, int $end): array
    {
        $joined = [];
        foreach ($units as $unit) {
            $last = count($joined) - 1;
            $open = $joined[$last] ?? null;
            if (
                $open !== null &&
                $open['channel'] === $unit['channel'] &&
                $open['speaker'] === $unit['speaker'] &&
                $unit['from'] - $open['to'] <= self::TOGETHER &&
                $unit['to'] - $open['from'] <= self::LONGEST
            ) {
                $joined[$last]['to'] = $unit['to'];
            } else {
                $joined[] = $unit;
            }
        }
        // With some quiet around each, as far as there is some.
        foreach ($joined as $at => $unit) {
            $before = $at === 0 ? 0 : intdiv($joined[$at - 1]['to'] + $unit['from'], 2);
            $after = isset($joined[$at + 1]) ? intdiv($unit['to'] + $joined[$at + 1]['from'], 2) : $end;
            $joined[$at] =
                [
                    'from' => max($unit['from'] - (int) self::AROUND, min($before, $unit['from'])),
                    'to' => min($unit['to'] + (int) self::AROUND, max($after, $unit['to'])),
                ] + $unit;
        }

        return $joined;
    }
}
