<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Edl;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Speed;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Received;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Look\Exception\InvalidLook;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/**
 * Reads the cut list that the trade exchanges as plain text (SMPTE ST 258 family): events of picture and sound, dissolves and
 * wipes, speeds (`M2`), black, notes of clip, file, reel, correction and marker; other comments are kept.
 *
 * The list says no rate, so the caller does; its `FCM` lines say whether labels are dropped. Labels that go over midnight go on
 * into the next day. Events of one reel, name and file read one source, from the first label that the list uses to the last.
 * What is malformed is a problem with its line, and the rest is read. Text is UTF-8, UTF-16 with its mark, else Windows-1252.
 */
final class EdlReader
{
    /** Bytes of a list, and events in it. */
    public const LARGEST = 16 << 20;

    private const MOST_EVENTS = 50_000;

    /** Comments that are kept. */
    private const MOST_COMMENTS = 50_000;

    private const LONGEST_LINE = 4096;

    /** After so many problems nobody reads on. */
    private const MOST_PROBLEMS = 1000;

    private const LABEL = '(\d{1,2}[:;.,]\d{1,2}[:;.,]\d{1,2}[:;.,]\d{1,3})';

    private const EVENT =
        '/\A(\d{1,9})\s+(\S.*?)\s+(V\d*|B|NONE|A+\d*(?:\/V\d*)?|V?A\d+(?:A\d+)*)\s+(C|D|W\d{0,3}|K\s*[BO]?)(?:\s+(\d{1,6}))?\s+' .
        self::LABEL .
        '\s+' .
        self::LABEL .
        '\s+' .
        self::LABEL .
        '\s+' .
        self::LABEL .
        '\s*\z/i';

    private FrameRate $counting;

    private ?bool $isDrop = null;

    private string $title = '';

    /** @var list<EdlEvent> */
    private array $events = [];

    private ?EdlEvent $last = null;

    /** @var list<string> */
    private array $comments = [];

    /** @var list<ListProblem> */
    private array $problems = [];

    /** Comments so far. */
    private int $kept = 0;

    private int $file = 1;

    private int $line = 0;

    private function __construct(private readonly FrameRate $rate)
    {
        $this->counting = $rate;
    }

    /**
     * @param  string|list<string>  $texts  several are one list that goes on
     *
     * @throws InvalidSequence if there is no event in it, or it is too long to be a list
     */
    public static function read(string|array $texts, FrameRate $rate): Received
    {
        $reader = new self($rate);
        foreach (array_values((array) $texts) as $index => $text) {
            if (strlen($text) > self::LARGEST) {
                throw InvalidSequence::field('The list', 'is longer than ' . (self::LARGEST >> 20) . ' MB');
            }
            $reader->file = $index + 1;
            $reader->last = null;
            $reader->lines(self::utf8($text));
        }

        return $reader->received();
    }

    private static function utf8(string $text): string
    {
        $wide = match (true) {
            str_starts_with($text, "\xFF\xFE") => 'UTF-16LE',
            str_starts_with($text, "\xFE\xFF") => 'UTF-16BE',
            default => null,
        };
        $text = match (true) {
            $wide !== null => mb_convert_encoding(substr($text, 2), 'UTF-8', $wide),
            mb_check_encoding($text, 'UTF-8') => str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text,
            default => mb_convert_encoding($text, 'UTF-8', 'Windows-1252'),
        };

        return mb_scrub($text);
    }

    private function lines(string $text): void
    {
        $this->line = 0;
        for ($at = 0, $end = strlen($text); $at < $end; ) {
            $length = strcspn($text, "\r\n", $at);
            $this->line++;
            if ($length > self::LONGEST_LINE) {
                $this->problem('The line is longer than ' . self::LONGEST_LINE . ' characters');
            } else {
                $this->one(trim((string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', substr($text, $at, $length))));
            }
            $at += $length;
            $at += substr($text, $at, 2) === "\r\n" ? 2 : 1;
        }
    }

    private function one(string $line): void
    {
        if ($line === '') {
            return;
        }
        match (true) {
            ctype_digit($line[0]) => $this->event($line),
            $line[0] === '*' => $this->note(trim(substr($line, 1))),
            preg_match('/\ATITLE\s*:\s*(.*)\z/i', $line, $part) === 1 => ($this->title = $this->title === '' ? $part[1] : $this->title),
            preg_match('/\AFCM\s*:\s*(NON[- ]?)?DROP/i', $line, $part) === 1 => $this->mode(($part[1] ?? '') === ''),
            preg_match('/\AM2\s+(\S.*?)\s+([+-]?\d{1,6}(?:\.\d{1,9})?)\s+' . self::LABEL . '\z/i', $line, $part) === 1 => $this->speed(
                $part[1],
                $part[2],
            ),
            preg_match('/\AAUD((?:\s+\d{1,2})+)\z/i', $line, $part) === 1 => $this->channels(preg_split('/\s+/', trim($part[1])) ?: []),
            default => $this->problem(sprintf('"%s" is no line of such a list', InvalidSequence::quote($line))),
        };
    }

    private function mode(bool $isDrop): void
    {
        if ($isDrop && !$this->rate->allowsDropFrame()) {
            $this->problem("No label is dropped at {$this->rate->name} frames; they are read as they count");

            return;
        }
        $this->counting = $this->rate->withDropFrame($isDrop);
        // The first word decides how the cut's own labels count.
        $this->isDrop ??= $isDrop;
    }

    private function event(string $line): void
    {
        if (preg_match(self::EVENT, $line, $part) !== 1) {
            $this->problem(sprintf('"%s" is no event', InvalidSequence::quote($line)));
            $this->last = null;

            return;
        }
        $this->last = null;
        [, $number, $reel, $channel, $kind, $length] = $part;
        try {
            $labels = array_map($this->frames(...), array_slice($part, 6, 4));
        } catch (InvalidTime $bad) {
            $this->problem($bad->getMessage());

            return;
        }
        if (count($this->events) >= self::MOST_EVENTS) {
            throw InvalidSequence::field('The list', 'has more than ' . self::MOST_EVENTS . ' events');
        }
        $kind = strtoupper((string) preg_replace('/\s+/', '', $kind));
        if ($kind[0] === 'K') {
            $this->problem('What lies over other pictures is read as a cut');
            $kind = 'C';
        }
        if ($kind !== 'C' && (int) $length === 0) {
            $this->problem('A transition without a length is read as a cut');
            $kind = 'C';
        }
        $this->last = $this->events[] = new EdlEvent(
            $this->file,
            $this->line,
            $number,
            $reel,
            self::named($channel),
            match (true) {
                $kind === 'C' => '',
                $kind === 'D' => 'dissolve',
                default => 'wipe ' . ((int) substr($kind, 1)),
            },
            (int) $length,
            ...$labels,
        );
    }

    /** @throws InvalidTime */
    private function frames(string $label): int
    {
        $part = preg_split('/[:;.,]/', $label) ?: [];
        $separator = substr($label, -1 - strlen((string) end($part)), 1);
        $isDrop = $separator === ';' || ($separator !== ':' && $this->rate->allowsDropFrame());

        return Timecode::parse(
            sprintf('%02d:%02d:%02d%s%02d', $part[0], $part[1], $part[2], $isDrop ? ';' : ':', $part[3]),
            $this->counting,
        );
    }

    /** @return list<string> */
    private static function named(string $channel): array
    {
        $channel = strtoupper($channel);
        $named = [];
        if ($channel === 'B') {
            return ['V', 'A'];
        }
        if (preg_match('/V(\d*)/', $channel, $part) === 1) {
            $named[] = (int) $part[1] > 1 ? "V$part[1]" : 'V';
        }
        $sound = (string) preg_replace('/\/?V\d*/', '', $channel);
        if (str_starts_with($sound, 'AA')) {
            return [...$named, 'A', 'A2'];
        }
        preg_match_all('/A(\d*)/', $sound, $all);
        foreach ($all[1] as $number) {
            $named[] = (int) $number > 1 ? "A$number" : 'A';
        }

        return $named;
    }

    /** @param  list<string>  $numbers */
    private function channels(array $numbers): void
    {
        if ($this->last === null) {
            $this->problem('Channels of sound without an event');

            return;
        }
        foreach ($numbers as $number) {
            $this->last->channels[] = (int) $number > 1 ? 'A' . (int) $number : 'A';
        }
        $this->last->channels = array_values(array_unique($this->last->channels));
    }

    private function speed(string $reel, string $fps): void
    {
        // Under a transition the speed may be that of what goes, whose line stands above.
        if ($this->last === null) {
            $this->problem('A speed without an event');
        } elseif (strcasecmp($reel, $this->last->reel) === 0) {
            $this->last->fps = $fps;
        } elseif (!$this->isAlsoOf($this->last, $reel)) {
            $this->problem(sprintf('The speed is of reel %s, the event above is not', InvalidSequence::quote($reel)));
        }
    }

    private function isAlsoOf(EdlEvent $event, string $reel): bool
    {
        $former = $this->events[count($this->events) - 2] ?? null;

        return $former !== null && $former->number === $event->number && strcasecmp($former->reel, $reel) === 0;
    }

    private function note(string $text): void
    {
        $event = $this->last;
        if ($event === null) {
            if ($text !== '' && $this->kept++ < self::MOST_COMMENTS) {
                $this->comments[] = $text;
            }

            return;
        }
        $value = static fn(string $key, string $colon = '\s*:\s*'): ?string => preg_match("/\A$key$colon(.*)\z/i", $text, $part) === 1
            ? trim($part[1])
            : null;
        $isRead = match (true) {
            ($name = $value('FROM CLIP NAME')) !== null => ($event->from = $name) !== '',
            ($name = $value('TO CLIP NAME')) !== null => ($event->to = $name) !== '',
            ($name = $value('SOURCE FILE')) !== null => ($event->file = $name) !== '',
            ($name = $value('ORIGINAL HASH')) !== null => ($event->hash = $name) !== '',
            ($name = $value('REEL')) !== null => ($event->longReel = $name) !== '',
            ($sop = $value('ASC_SOP', '\s*:?\s*')) !== null => $this->sop($event, $sop),
            ($sat = $value('ASC_SAT', '\s*:?\s*')) !== null => $this->saturation($event, $sat),
            ($mark = $value('LOC NOTE')) !== null => $this->markNote($event, $mark),
            ($mark = $value('LOC LENGTH')) !== null => $this->markLength($event, $mark),
            ($mark = $value('LOC')) !== null => $this->mark($event, $mark),
            default => null,
        };
        if ($isRead !== true && $text !== '' && $this->kept++ < self::MOST_COMMENTS) {
            $event->comments[] = $text;
        }
    }

    private function sop(EdlEvent $event, string $text): bool
    {
        $number = '\s*(-?\d+(?:\.\d+)?(?:[eE]-?\d+)?)[\s,]*';
        $three = '\(' . str_repeat($number, 3) . '\)\s*';
        if (preg_match('/\A' . str_repeat($three, 3) . '\z/', $text, $part) !== 1) {
            $this->problem('The correction has not three times three values');

            return false;
        }
        $values = array_map(floatval(...), array_slice($part, 1));
        $event->sop = [array_slice($values, 0, 3), array_slice($values, 3, 3), array_slice($values, 6, 3)];

        return $this->look($event);
    }

    private function saturation(EdlEvent $event, string $text): bool
    {
        if (!is_numeric($text)) {
            $this->problem('The saturation is no number');

            return false;
        }
        $event->saturation = (float) $text;

        return $this->look($event);
    }

    private function look(EdlEvent $event): bool
    {
        try {
            $event->look = Cdl::of(...[...$event->sop ?? [[1, 1, 1], [0, 0, 0], [1, 1, 1]], $event->saturation ?? 1.0]);
        } catch (InvalidLook $bad) {
            $this->problem($bad->getMessage());

            return false;
        }

        return true;
    }

    private function mark(EdlEvent $event, string $text): bool
    {
        if (preg_match('/\A' . self::LABEL . '(?:\s+([A-Za-z]+)(?:\s+(.*))?)?\z/', $text, $part) !== 1) {
            $this->problem('The marker has no place');

            return false;
        }
        try {
            $event->marks[] = ['at' => $this->frames($part[1]), 'length' => 0, 'name' => trim($part[3] ?? ''), 'note' => ''];
        } catch (InvalidTime $bad) {
            $this->problem($bad->getMessage());

            return false;
        }

        return true;
    }

    private function markNote(EdlEvent $event, string $text): bool
    {
        $last = array_key_last($event->marks);
        if ($last === null) {
            return false;
        }
        $event->marks[$last]['note'] = $text;

        return true;
    }

    private function markLength(EdlEvent $event, string $text): bool
    {
        $last = array_key_last($event->marks);
        try {
            $length = $last === null || preg_match('/\A' . self::LABEL . '\z/', $text) !== 1 ? null : $this->frames($text);
        } catch (InvalidTime) {
            $length = null;
        }
        if ($length === null) {
            return false;
        }
        $event->marks[$last]['length'] = $length;

        return true;
    }

    /** @throws InvalidSequence if there is no event */
    private function received(): Received
    {
        $rate = $this->isDrop === null ? $this->rate : $this->rate->withDropFrame($this->isDrop);
        $events = $this->usable($rate->labelsPerDay());
        if ($events === []) {
            throw InvalidSequence::field('The list', 'has no event');
        }
        $start = min(array_map(static fn(EdlEvent $event): int => $event->recordIn, $events));
        $sources = new EdlSources($rate, $events);
        $tracks = $places = [];
        foreach ($this->laid($events) as $name => $lanes) {
            foreach ($lanes as $lane => $own) {
                $items = $where = [];
                foreach ($own as $event) {
                    if ($event->isBlack()) {
                        // What ends in black ends so.
                        $end = array_key_last($items);
                        $at = ($event->recordIn - $start) * $rate->ticksPerFrame();
                        if (!$event->isCut() && $end !== null && $items[$end]->recordEndTicks() === $at) {
                            $items[$end] = $items[$end]->with(ending: self::transition($event, $rate));
                        }

                        continue;
                    }
                    $items[] = $this->item($event, $sources, $start, $rate);
                    $where[] = $event->place();
                }
                if ($items !== []) {
                    $kind = $name[0] === 'V' ? TrackKind::Picture : TrackKind::Sound;
                    $tracks[] = new Track($kind, $lane === 0 ? $name : $name . ' ' . ($lane + 1), $items);
                    $places[] = $where;
                }
            }
        }
        $sequence = new Sequence(
            $this->title === '' ? 'Untitled' : $this->title,
            $rate,
            Ticks::ofFrames($start, $rate),
            $tracks,
            $this->comments === [] ? [] : ['edl' => ['comments' => $this->comments]],
        );
        usort($this->problems, static fn(ListProblem $x, ListProblem $y): int => [$x->file, $x->line] <=> [$y->file, $y->line]);

        return new Received($sequence, $this->problems, $places);
    }

    /**
     * Events that last, with their labels on one clock that goes on over midnight.
     *
     * @return list<EdlEvent>
     */
    private function usable(int $day): array
    {
        $usable = [];
        $before = null;
        foreach ($this->events as $index => $event) {
            $next = $this->events[$index + 1] ?? null;
            $record = $event->recordIn;
            while ($before !== null && $record < $before - intdiv($day, 2)) {
                $record += $day;
            }
            $over = $record - $event->recordIn;
            $event->recordIn += $over;
            $event->recordOut += $over;
            if ($event->recordOut < $event->recordIn - intdiv($day, 2)) {
                $event->recordOut += $day;
            }
            $before = $event->recordIn;
            foreach ($event->marks as &$mark) {
                $mark['at'] += $over;
                $mark['at'] += $mark['at'] < $event->recordIn - intdiv($day, 2) ? $day : 0;
            }
            unset($mark);
            if ($event->sourceOut < $event->sourceIn - intdiv($day, 2)) {
                $event->sourceOut += $day;
            }
            if ($event->recordOut === $event->recordIn && $next !== null && $next->number === $event->number && !$next->isCut()) {
                continue; // what a transition leads away from
            }
            if ($event->recordOut <= $event->recordIn) {
                $this->told($event, $event->recordOut === $event->recordIn ? 'lasts no time' : 'ends before it begins');

                continue;
            }
            if ($event->channels === []) {
                $this->told($event, 'is neither picture nor sound');

                continue;
            }
            $usable[] = $event;
        }

        return $usable;
    }

    /**
     * Events by channel, and where they lie over each other in further lanes of it.
     *
     * @param  list<EdlEvent>  $events
     * @return array<string, list<list<EdlEvent>>>
     */
    private function laid(array $events): array
    {
        $channels = [];
        foreach ($events as $event) {
            foreach ($event->channels as $channel) {
                $channels[$channel][] = $event;
            }
        }
        uksort(
            $channels,
            static fn(string $x, string $y): int => [$x[0] === 'V' ? 0 : 1, (int) substr($x, 1)] <=> [
                $y[0] === 'V' ? 0 : 1,
                (int) substr($y, 1),
            ],
        );
        $laid = [];
        foreach ($channels as $channel => $own) {
            usort($own, static fn(EdlEvent $x, EdlEvent $y): int => $x->recordIn <=> $y->recordIn);
            $ends = [];
            $lanes = [];
            foreach ($own as $event) {
                if ($event->isBlack()) {
                    // Nothing lies there, so it needs no room.
                    $lanes[0][] = $event;

                    continue;
                }
                $lane = 0;
                while (isset($ends[$lane]) && $ends[$lane] > $event->recordIn) {
                    $lane++;
                }
                if ($lane > 0) {
                    $this->told($event, "lies over another one of $channel, and has a track of its own");
                }
                $ends[$lane] = $event->recordOut;
                $lanes[$lane][] = $event;
            }
            ksort($lanes);
            $laid[$channel] = array_values($lanes);
        }

        return $laid;
    }

    private function item(EdlEvent $event, EdlSources $sources, int $start, FrameRate $rate): Item
    {
        [$source, $sourceStart] = $sources->of($event);
        $speed = $sources->speedOf($event);
        $frames = $event->frames();
        $given = $event->sourceOut - $event->sourceIn;
        if ($speed->isPlain() && $given !== $frames) {
            $this->told($event, "shows $given frames in $frames; it is read as $frames");
        }

        return new Item(
            $event->name(),
            $source,
            $sourceStart,
            Ticks::ofFrames($frames, $rate),
            Ticks::ofFrames($event->recordIn - $start, $rate),
            markers: array_map(
                static fn(array $mark): Marker => new Marker(
                    Ticks::ofFrames($mark['at'] - $event->recordIn, $rate),
                    Ticks::ofFrames($mark['length'], $rate),
                    $mark['name'],
                    $mark['note'],
                ),
                $event->marks,
            ),
            metadata: [
                ...$event->hash === null ? [] : ['hash' => $event->hash],
                ...$event->comments === [] ? [] : ['edl' => ['comments' => $event->comments]],
            ],
            look: $event->look,
            speed: $speed,
            transition: $event->isCut() ? null : self::transition($event, $rate),
        );
    }

    private static function transition(EdlEvent $event, FrameRate $rate): Transition
    {
        return new Transition($event->transition, Ticks::ofFrames($event->transitionFrames, $rate));
    }

    private function told(EdlEvent $event, string $why): void
    {
        if (count($this->problems) < self::MOST_PROBLEMS) {
            $this->problems[] = new ListProblem("Event $event->number $why.", $event->line, file: $event->part);
        }
    }

    private function problem(string $why): void
    {
        if (count($this->problems) < self::MOST_PROBLEMS) {
            $this->problems[] = new ListProblem(rtrim($why, '.') . '.', $this->line, file: $this->file);
        }
    }
}
