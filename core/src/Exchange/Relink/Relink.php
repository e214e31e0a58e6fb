<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Relink;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Edl\ShortReels;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/**
 * Links a cut that came from elsewhere to clips that are here: by the mark that a list of ours gave an item, by the file's hash, by
 * reel and timecode, by name; in this order, and only where one clip is meant. What an event reads must lie in the clip.
 *
 * Every event has a reason in words, also those that are not linked. Nothing of the cut but its sources changes.
 */
final class Relink
{
    /** Metadata of an item: how it was linked. */
    public const KEY = 'link';

    /** A list counts in frames of its own rate, a clip in its own: so much of a frame may be missing at either end. */
    private const SLACK = 1;

    /** @var array<string, list<Candidate>> */
    private array $byId = [];

    /** @var array<string, list<Candidate>> */
    private array $byHash = [];

    /** @var array<string, list<Candidate>> */
    private array $byReel = [];

    /** @var array<string, list<Candidate>> */
    private array $byName = [];

    /** @var array<string, string> by the short name that an edit list gave a reel */
    private array $shortReels = [];

    /** @param  iterable<Candidate>  $candidates */
    public function __construct(iterable $candidates, private readonly FrameRate $rate)
    {
        foreach ($candidates as $one) {
            $this->byId[$one->source->id][] = $one;
            foreach ($one->hashes as $hash) {
                $this->byHash[strtolower($hash)][] = $one;
            }
            if ($one->source->reel !== null) {
                $this->byReel[self::folded($one->source->reel)][] = $one;
                $this->shortReels[self::shortened($one->source->reel)] ??= self::folded($one->source->reel);
            }
            foreach (array_unique(array_map(self::plain(...), $one->names)) as $name) {
                if ($name !== '') {
                    $this->byName[$name][] = $one;
                }
            }
        }
    }

    /**
     * The cut with each item's source as it is here, and under {@see self::KEY} how it was found.
     *
     * @param  array<int, array<int, string>>  $places  where the list says each item
     */
    public function all(Sequence $sequence, array $places = []): Sequence
    {
        $changed = [];
        foreach ($sequence->tracks as $number => $track) {
            foreach ($track->items as $index => $item) {
                $changed[$number][] = self::linked($item, $this->find($item, $track), $places[$number][$index] ?? '');
            }
        }

        return $sequence->with($changed);
    }

    /** An item with the source of its link, or its own where there is none. */
    public static function linked(Item $item, Link $link, string $place): Item
    {
        $said = $link->toArray() + ($place === '' ? [] : ['place' => $place]);
        $metadata = [self::KEY => $said] + $item->metadata;
        $candidate = $link->candidate;

        return new Item(
            $item->name,
            $candidate->source ?? $item->source,
            $candidate === null ? $item->sourceStartTicks : $link->sourceStartTicks,
            $item->durationTicks,
            $item->recordStartTicks,
            $item->enabled,
            $item->markers,
            $metadata,
            $item->look,
            $item->speed,
            $item->transition,
            ending: $item->ending,
        );
    }

    public function find(Item $item, Track $track): Link
    {
        $isPicture = $track->kind === TrackKind::Picture;
        $own = $this->byId[$item->source->id] ?? [];
        if ($own !== []) {
            $link = $this->among($own, $item, $isPicture, LinkWay::Own, 'The list carries our own mark of it.');
            if ($link->candidate !== null) {
                return $link;
            }
        }
        $hash = $item->metadata['hash'] ?? null;
        if (is_string($hash) && isset($this->byHash[strtolower($hash)])) {
            $link = $this->among($this->byHash[strtolower($hash)], $item, $isPicture, LinkWay::Hash, 'Its file has the same hash.');
            if ($link->candidate !== null) {
                return $link;
            }
        }
        $byReel = $this->onReel($item, $isPicture);
        if ($byReel?->candidate !== null) {
            return $byReel;
        }
        $byName = $this->named($item, $isPicture);
        if ($byName?->candidate !== null) {
            return $byName;
        }

        return $byReel ?? ($byName ?? new Link(LinkWay::None, $this->unknown($item)));
    }

    private function unknown(Item $item): string
    {
        return $item->source->reel === null
            ? sprintf('No clip here is called %s.', $item->source->path === null ? $item->name : basename($item->source->path))
            : sprintf('Reel %s is not here, and no clip is called %s.', $item->source->reel, $item->name);
    }

    private function onReel(Item $item, bool $isPicture): ?Link
    {
        $reel = $item->source->reel;
        if ($reel === null) {
            return null;
        }
        $key = self::folded($reel);
        $known = $this->byReel[$key] ?? ($this->byReel[$this->shortReels[$key] ?? ''] ?? []);
        $dated = array_values(array_filter($known, static fn(Candidate $one): bool => $one->hasTimecode));
        // Sound of the same reel says nothing about where its pictures are.
        $candidates = array_values(array_filter($dated, static fn(Candidate $one): bool => !$isPicture || !$one->isSound)) ?: $dated;
        if ($candidates === []) {
            return null;
        }
        $link = $this->among($candidates, $item, $isPicture, LinkWay::Timecode, "Reel $reel holds this timecode.");

        return $link->candidate !== null ? $link : new Link(LinkWay::None, $this->besides($item, $reel, $candidates, $link));
    }

    /** @param  list<Candidate>  $candidates */
    private function besides(Item $item, string $reel, array $candidates, Link $link): string
    {
        [$from, $to] = $this->reads($item);
        if ($this->holding($candidates, $item) !== []) {
            return $link->reason;
        }
        $spans = array_map(
            fn(Candidate $one): array => [
                $one->source->startTicks,
                $one->source->startTicks + $one->source->durationTicks,
                $one->source->name,
            ],
            $candidates,
        );
        usort($spans, static fn(array $x, array $y): int => $x <=> $y);
        $here = sprintf('Reel %s is here, but not at %s', $reel, $this->label($from));
        foreach ($spans as [$begin, $end, $name]) {
            if ($begin <= $from && $from < $end) {
                return sprintf(
                    'Reel %s is here, but %s ends at %s and the event needs it until %s.',
                    $reel,
                    $name,
                    $this->label($end),
                    $this->label($to),
                );
            }
            if ($begin < $to && $from < $begin) {
                return sprintf(
                    'Reel %s is here, but %s begins at %s and the event needs it from %s.',
                    $reel,
                    $name,
                    $this->label($begin),
                    $this->label($from),
                );
            }
        }
        $last = $spans[count($spans) - 1][1];
        if ($from >= max(array_column($spans, 1))) {
            return sprintf('%s: the card ends at %s.', $here, $this->label(max($last, ...array_column($spans, 1))));
        }
        if ($from < $spans[0][0]) {
            return sprintf('%s: the card begins at %s.', $here, $this->label($spans[0][0]));
        }
        $before = array_filter($spans, static fn(array $span): bool => $span[1] <= $from);
        $after = array_values(array_filter($spans, static fn(array $span): bool => $span[0] > $from));

        return sprintf('%s: between %s and %s nothing was recorded.', $here, $before[array_key_last($before)][2], $after[0][2]);
    }

    private function named(Item $item, bool $isPicture): ?Link
    {
        $names = array_filter(
            [basename((string) $item->source->path), $item->source->name, $item->name],
            static fn(string $name): bool => $name !== '',
        );
        $met = null;
        foreach (array_unique(array_map(self::plain(...), $names)) as $name) {
            $candidates = $this->byName[$name] ?? [];
            if ($candidates === []) {
                continue;
            }
            $link = $this->among($candidates, $item, $isPicture, LinkWay::Name, 'Its name is the same.', true);
            if ($link->candidate !== null) {
                return $link;
            }
            $met ??= $link;
        }

        return $met;
    }

    /**
     * The one of some clips that an event means.
     *
     * @param  list<Candidate>  $candidates
     * @param  bool  $orFromZero  whether the event's times may count from the clip's first frame, as in lists without timecode
     */
    private function among(array $candidates, Item $item, bool $isPicture, LinkWay $way, string $reason, bool $orFromZero = false): Link
    {
        $kind = array_values(array_filter($candidates, static fn(Candidate $one): bool => !$isPicture || !$one->isSound));
        if ($kind === []) {
            return new Link(LinkWay::None, sprintf('%s is sound, and the event is picture.', $candidates[0]->source->name));
        }
        $holding = $this->holding($kind, $item);
        $isFromZero = false;
        if ($holding === [] && $orFromZero) {
            $holding = array_values(array_filter($kind, fn(Candidate $one): bool => $this->fits($one, $item, $item->source->startTicks)));
            $isFromZero = $holding !== [];
        }
        // Sound of a picture's clip rather than the picture's own, where both hold the time.
        if (count($holding) > 1 && !$isPicture) {
            $sounds = array_values(array_filter($holding, static fn(Candidate $one): bool => $one->isSound));
            $holding = count($sounds) === 1 ? $sounds : $holding;
        }
        if (count($holding) > 1) {
            $names = array_filter([basename((string) $item->source->path), $item->source->name, $item->name]);
            $named = array_values(
                array_filter(
                    $holding,
                    static fn(Candidate $one): bool => array_intersect(
                        array_map(self::plain(...), $one->names),
                        array_map(self::plain(...), $names),
                    ) !== [],
                ),
            );
            $holding = count($named) === 1 ? $named : $holding;
        }
        if ($holding === []) {
            $one = $kind[0]->source;

            return new Link(
                LinkWay::None,
                sprintf(
                    '%s is here, but it runs from %s to %s, and the event needs %s.',
                    $one->name,
                    $this->label($one->startTicks),
                    $this->label($one->startTicks + $one->durationTicks),
                    $this->label($this->reads($item)[0]),
                ),
            );
        }
        if (count($holding) > 1) {
            $names = array_map(static fn(Candidate $one): string => $one->source->name, array_slice($holding, 0, 3));

            return new Link(LinkWay::None, sprintf('%d clips could be meant: %s.', count($holding), implode(', ', $names)));
        }
        $one = $holding[0];
        $begin =
            $isFromZero || !$one->hasTimecode
                ? $item->sourceStartTicks + $item->source->startTicks
                : $this->offset($one, $item) + $item->sourceStartTicks;
        $most = $one->source->durationTicks;
        $reads = $item->speed->ofSource($item->durationTicks);
        // Within the slack, it begins and ends with the clip.
        $begin = max(0, min($begin, $most - max(0, $reads)));

        return $item->speed->fits($begin, $item->durationTicks, $most)
            ? new Link($way, $isFromZero ? "$reason The list counts from the clip's first frame." : $reason, $one, $begin)
            : new Link(LinkWay::None, sprintf('%s is too short for what the event needs.', $one->source->name));
    }

    /** @return array{int, int} the labels between which an event reads, ticks since midnight */
    private function reads(Item $item): array
    {
        $begin = $item->source->startTicks + $item->sourceStartTicks;
        $end = $begin + $item->speed->ofSource($item->durationTicks);

        return [min($begin, $end), max($begin, $end)];
    }

    /**
     * @param  list<Candidate>  $candidates
     * @return list<Candidate> those in which all that the event reads lies
     */
    private function holding(array $candidates, Item $item): array
    {
        return array_values(
            array_filter(
                $candidates,
                fn(Candidate $one): bool => $this->fits(
                    $one,
                    $item,
                    $one->hasTimecode ? $this->offset($one, $item) : $item->source->startTicks,
                ),
            ),
        );
    }

    /** Where the event's source begins in the clip, ticks; labels of one clock may be a day apart. */
    private function offset(Candidate $one, Item $item): int
    {
        $day = $this->rate->labelsPerDay() * $this->rate->ticksPerFrame();
        $offset = $item->source->startTicks - $one->source->startTicks;
        $reads = $this->reads($item)[0] - $one->source->startTicks;
        if ($reads < -intdiv($day, 2)) {
            $offset += $day;
        } elseif ($reads > intdiv($day, 2) + $one->source->durationTicks) {
            $offset -= $day;
        }

        return $offset;
    }

    private function fits(Candidate $one, Item $item, int $offset): bool
    {
        [$low, $high] = $this->reads($item);
        $low += $offset - $item->source->startTicks;
        $high += $offset - $item->source->startTicks;
        $slack = self::SLACK * max($this->rate->ticksPerFrame(), $one->source->rate?->ticksPerFrame() ?? 0);

        return $low >= -$slack && $high <= $one->source->durationTicks + $slack;
    }

    private function label(int $ticks): string
    {
        return Timecode::label(Ticks::toFrames($ticks, $this->rate), $this->rate);
    }

    private static function folded(string $text): string
    {
        return mb_strtolower(trim($text));
    }

    private static function shortened(string $reel): string
    {
        return self::folded(substr((string) preg_replace('/[^A-Za-z0-9_.-]/', '_', $reel), 0, ShortReels::LENGTH));
    }

    /** A name without its folder and its extension, in small letters. */
    private static function plain(string $name): string
    {
        return self::folded((string) preg_replace('/\.[A-Za-z0-9]{2,4}\z/', '', basename(str_replace('\\', '/', $name))));
    }
}
