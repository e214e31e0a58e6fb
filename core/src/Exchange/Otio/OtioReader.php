<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Otio;

use Cartella\Core\Cutting\Angles;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\SequenceReader;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Speed;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Received;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * Reads a timeline of OpenTimelineIO JSON: tracks, clips, gaps, transitions, markers, speeds and media of any version of these
 * schemas; of a collection the first timeline. Times may stand at any rate.
 *
 * What it does not know (schemas, metadata of others, effects, tracks that are neither picture nor sound, what is nested) is kept
 * as JSON text under the metadata key {@see self::KEPT}, where {@see OtioWriter} finds it again, and told as a problem with its
 * path where it takes time on a track. Places that {@see OtioWriter} wrote in ticks hold as long as nobody changed the times
 * beside them.
 */
final class OtioReader
{
    public const KEPT = 'otio';

    /** Bytes of a file. */
    public const LARGEST = 64 << 20;

    /** Braces, brackets and commas: what a file becomes in memory. A feature's cut has half as many. */
    private const MOST_NODES = 700_000;

    private const DEEPEST = 256;

    private const MOST_PROBLEMS = 1000;

    /** Times are written in samples of 48 kHz where they are no frames, so ticks of a place may differ by as much. */
    private const SAMPLE = Ticks::PER_SECOND / 48_000;

    /** Ticks of ten thousand days. */
    private const LATEST = 864_000_000 * Ticks::PER_SECOND;

    /** @var list<ListProblem> */
    private array $problems = [];

    /** @var list<array{track: int, at_ticks: int, duration_ticks: int, json: string}> */
    private array $children = [];

    private FrameRate $rate;

    private function __construct() {}

    /** @throws InvalidSequence if it is no JSON of a timeline, or too long to be one */
    public static function read(string $json): Received
    {
        if (strlen($json) > self::LARGEST) {
            throw InvalidSequence::field('The file', 'is longer than ' . (self::LARGEST >> 20) . ' MB');
        }
        $counts = count_chars($json, 1);
        if (($counts[ord('{')] ?? 0) + ($counts[ord('[')] ?? 0) + ($counts[ord(',')] ?? 0) > self::MOST_NODES) {
            throw InvalidSequence::field('The file', 'says more than any cut');
        }
        $root = json_decode($json, false, self::DEEPEST);
        if (!($root instanceof \stdClass)) {
            throw InvalidSequence::field('The file', 'is no JSON object');
        }

        return (new self())->timeline($root);
    }

    private function timeline(\stdClass $root): Received
    {
        [$timeline, $path] = $this->found($root);
        $stack = self::schema($timeline) === 'Timeline' ? $timeline->tracks ?? null : $timeline;
        if (!($stack instanceof \stdClass)) {
            throw InvalidSequence::field($path . 'tracks', 'is no stack of tracks');
        }
        $own = self::own($timeline);
        $this->rate = $this->rateOf($timeline, $own, $stack);
        $start = isset($timeline->global_start_time) ? (int) $this->time($timeline->global_start_time, $path . 'global_start_time') : 0;
        $tracks = $places = $others = $about = [];
        foreach ($this->tracksOf($stack, $path . 'tracks') as [$node, $where]) {
            $kind = match (strtolower(self::text($node, 'kind'))) {
                'video', '' => TrackKind::Picture,
                'audio' => TrackKind::Sound,
                default => null,
            };
            if ($kind === null) {
                $this->problem($where, sprintf('A track of "%s" is kept as it is', InvalidSequence::quote(self::text($node, 'kind'))));
                $others[] = self::json($node);

                continue;
            }
            $number = count($tracks);
            [$items, $named] = $this->items($node, $number, $where);
            $mine = self::own($node);
            $tracks[] = new Track(
                $kind,
                self::text($node, 'name') ?: ($kind === TrackKind::Picture ? 'V' : 'A'),
                $items,
                is_string($mine->role ?? null) ? $mine->role : '',
                ($mine->locked ?? false) === true,
                ($node->enabled ?? true) !== false,
            );
            $places[] = $named;
            $about[$number] = array_filter([
                'metadata' => self::foreign($node),
                'effects' => self::filled($node->effects ?? null),
                'markers' => self::filled($node->markers ?? null),
            ]);
        }
        $kept = array_filter([
            'metadata' => self::foreign($timeline),
            'stack' => $stack === $timeline ? null : self::filled($stack->metadata ?? null),
            'markers' => $stack === $timeline ? null : self::filled($stack->markers ?? null),
            'children' => $this->children,
            'others' => $others,
            'tracks' => array_filter($about),
        ]);

        return new Received(
            new Sequence(
                self::text($timeline, 'name') ?: 'Untitled',
                $this->rate,
                self::exact($own->start_ticks ?? null, $start, self::SAMPLE),
                $tracks,
                self::told($own, ['rate', 'start_ticks']) + ($kept === [] ? [] : [self::KEPT => $kept]),
            ),
            $this->problems,
            $places,
        );
    }

    /** @return array{\stdClass, string} the timeline, or what can stand for one, and its path with a dot */
    private function found(\stdClass $root): array
    {
        $schema = self::schema($root);
        if ($schema !== 'SerializableCollection') {
            return in_array($schema, ['Timeline', 'Stack', 'Track'], true)
                ? [$root, '']
                : throw InvalidSequence::field('The file', 'is no timeline of this format');
        }
        $timelines = array_filter(
            self::list($root, 'children'),
            static fn(mixed $one): bool => $one instanceof \stdClass && self::schema($one) === 'Timeline',
        );
        if ($timelines === []) {
            throw InvalidSequence::field('The collection', 'holds no timeline');
        }
        if (count($timelines) > 1) {
            $this->problem('children', sprintf('Of %d timelines the first is read', count($timelines)));
        }
        $at = array_key_first($timelines);

        return [$timelines[$at], "children.$at."];
    }

    /** @return \Generator<array{\stdClass, string}> every track, also those of stacks in it; a clip by itself is one */
    private function tracksOf(\stdClass $node, string $path): \Generator
    {
        $schema = self::schema($node);
        if ($schema === 'Track') {
            yield [$node, $path];

            return;
        }
        if ($schema !== 'Stack') {
            yield [(object) ['OTIO_SCHEMA' => 'Track.1', 'name' => '', 'kind' => 'Video', 'children' => [$node]], $path];

            return;
        }
        foreach (self::list($node, 'children') as $index => $child) {
            if ($child instanceof \stdClass) {
                yield from $this->tracksOf($child, "$path.children.$index");
            } else {
                $this->problem("$path.children.$index", 'It is no object');
            }
        }
    }

    private function rateOf(\stdClass $timeline, \stdClass $own, \stdClass $stack): FrameRate
    {
        if (is_string($own->rate ?? null)) {
            try {
                return FrameRate::parse($own->rate);
            } catch (InvalidTime) {
                $this->problem('metadata.cartella.rate', 'It is no frame rate');
            }
        }
        foreach ([$timeline->global_start_time ?? null, ...$this->times($stack)] as $time) {
            $rate = $time instanceof \stdClass && is_numeric($time->rate ?? null) ? FrameRate::near((float) $time->rate) : null;
            if ($rate !== null) {
                return $rate;
            }
        }
        $this->problem('global_start_time', 'Nothing says a frame rate that is known; it is read at 25');

        return FrameRate::parse('25');
    }

    /** @return \Generator<mixed> starts of what lies on the tracks, pictures first */
    private function times(\stdClass $stack): \Generator
    {
        $tracks = array_filter(self::list($stack, 'children'), static fn(mixed $one): bool => $one instanceof \stdClass);
        usort(
            $tracks,
            static fn(\stdClass $x, \stdClass $y): int => (self::text($x, 'kind') === 'Audio') <=> (self::text($y, 'kind') === 'Audio'),
        );
        foreach ([$stack, ...$tracks] as $track) {
            foreach (self::list($track, 'children') as $child) {
                yield $child->source_range->start_time ?? null;
                yield $child->source_range->duration ?? null;
            }
        }
    }

    /** @return array{list<Item>, array<int, string>} and where the file says each */
    private function items(\stdClass $track, int $number, string $path): array
    {
        $items = $places = [];
        $cursor = 0;
        $pending = null;
        $isAfterItem = false;
        foreach (self::list($track, 'children') as $index => $child) {
            $where = "$path.children.$index";
            if (!($child instanceof \stdClass)) {
                $this->problem($where, 'It is no object');

                continue;
            }
            $schema = self::schema($child);
            if ($schema === 'Transition') {
                $pending = $this->transition($child, $where);

                continue;
            }
            if ($schema === 'Clip') {
                $item = $this->clip($child, $cursor, $where, $pending);
                if ($item !== null) {
                    $items[] = $item;
                    $places[] = $where;
                    $cursor = $item->recordEndTicks();
                    $isAfterItem = true;
                    $pending = null;
                }

                continue;
            }
            $this->ends($items, $pending, $isAfterItem, $where);
            $pending = null;
            $isAfterItem = false;
            $duration = $this->lasts($child, $where);
            if ($schema !== 'Gap') {
                $this->problem($where, sprintf('"%s" is kept as it is', InvalidSequence::quote(self::text($child, 'OTIO_SCHEMA'))));
                $this->children[] = [
                    'track' => $number,
                    'at_ticks' => $cursor,
                    'duration_ticks' => $duration,
                    'json' => self::json($child),
                ];
            }
            $cursor += $duration;
        }
        $this->ends($items, $pending, $isAfterItem, "$path.children");

        return isset($track->source_range) && $track->source_range instanceof \stdClass
            ? $this->trimmed($items, $places, $track->source_range, $path)
            : [$items, $places];
    }

    /**
     * A transition that nothing follows is how the item before it ends.
     *
     * @param  list<Item>  $items
     */
    private function ends(array &$items, ?Transition $pending, bool $isAfterItem, string $where): void
    {
        if ($pending === null) {
            return;
        }
        $last = array_key_last($items);
        if ($last === null || !$isAfterItem) {
            $this->problem($where, 'A transition between nothing and nothing is left out');

            return;
        }
        $items[$last] = $items[$last]->with(ending: $pending);
    }

    /**
     * @param  list<Item>  $items
     * @param  array<int, string>  $places
     * @return array{list<Item>, array<int, string>}
     */
    private function trimmed(array $items, array $places, \stdClass $range, string $path): array
    {
        $from = $this->time($range->start_time ?? null, "$path.source_range");
        $length = $this->time($range->duration ?? null, "$path.source_range");
        if ($from === null || $length === null) {
            return [$items, $places];
        }
        $kept = $where = [];
        foreach ($items as $index => $item) {
            if ($item->isOver($from, $from + $length)) {
                $part = $item->between($from, $from + $length);
                $kept[] = $part->at($part->recordStartTicks - $from);
                $where[] = $places[$index];
            }
        }

        return [$kept, $where];
    }

    private function transition(\stdClass $node, string $where): ?Transition
    {
        $before = max(0, (int) $this->time($node->in_offset ?? null, "$where.in_offset"));
        $after = max(0, (int) $this->time($node->out_offset ?? null, "$where.out_offset"));
        if ($before + $after === 0) {
            $this->problem($where, 'A transition that lasts no time is left out');

            return null;
        }
        $name = self::text($node, 'transition_type') === 'SMPTE_Dissolve' ? 'dissolve' : (self::text($node, 'name') ?: 'transition');

        return new Transition($name, $before + $after, $before);
    }

    /** How long something on a track is, ticks; nothing if it does not say. */
    private function lasts(\stdClass $node, string $where): int
    {
        if (isset($node->source_range->duration)) {
            return max(0, (int) $this->time($node->source_range->duration, "$where.source_range.duration"));
        }
        $inside = array_filter(
            self::list($node, 'children'),
            static fn(mixed $one): bool => $one instanceof \stdClass && self::schema($one) !== 'Transition',
        );
        $lengths = array_map(fn(\stdClass $child): int => $this->lasts($child, $where), $inside);

        return match (self::schema($node)) {
            'Track' => (int) array_sum($lengths),
            'Stack' => $lengths === [] ? 0 : max($lengths),
            'Clip' => (int) $this->time(self::referenceOf($node)->available_range->duration ?? null, $where),
            default => 0,
        };
    }

    private function clip(\stdClass $node, int $cursor, string $where, ?Transition $transition): ?Item
    {
        $own = self::own($node);
        $reference = self::referenceOf($node);
        $media = $this->span($reference->available_range ?? null, "$where.available_range");
        $range = $this->span($node->source_range ?? null, "$where.source_range") ?? $media;
        if ($range === null || $range[1] <= 0) {
            $this->problem($where, $range === null ? 'The clip does not say how long it is' : 'The clip lasts no time');

            return null;
        }
        $media = $media !== null && $media[1] > 0 ? $media : $range;
        $from = self::exact($own->source_from_ticks ?? null, $media[0], self::SAMPLE);
        $length = max(1, self::exact($own->source_duration_ticks ?? null, $media[1], self::SAMPLE));
        $duration = max(1, self::exact($own->duration_ticks ?? null, $range[1], self::SAMPLE));
        $speed = $this->speed($node, $own, $where);
        // Backwards, it begins where its range ends.
        $read = $range[0] - $from;
        $begin = self::exact(
            $own->source_start_ticks ?? null,
            $speed->num < 0 ? $read - $speed->ofSource($duration) : $read,
            2 * self::SAMPLE,
        );
        [$low, $high] = [min($begin, $begin + $speed->ofSource($duration)), max($begin, $begin + $speed->ofSource($duration))];
        if ($low < 0 || $high > $length) {
            if ($low < -self::SAMPLE || $high > $length + self::SAMPLE) {
                $this->problem($where, 'The clip reads beyond the media that it names; the media are taken as longer');
            }
            $from += min(0, $low);
            $length = max($length, $high) - min(0, $low);
            $begin -= min(0, $low);
        }
        $half = intdiv($this->rate->ticksPerFrame(), 2);
        $at = self::exact($own->record_start_ticks ?? null, $cursor, $half);
        $source = new Source(
            self::line(
                is_string($own->source_id ?? null)
                    ? $own->source_id
                    : (self::text($reference, 'target_url') ?:
                    self::text($reference, 'name') ?:
                    self::text($node, 'name')),
            ),
            self::text($reference, 'name') ?: self::text($node, 'name'),
            self::path(self::text($reference, 'target_url')),
            is_string($own->reel ?? null) ? self::line($own->reel) : null,
            $from,
            $length,
            $this->sourceRate($own, $reference, $node),
        );
        [$look, $facts] = SequenceReader::lookIn(
            self::told($own, [
                'source_id',
                'reel',
                'source_rate',
                'source_from_ticks',
                'source_duration_ticks',
                'source_start_ticks',
                'duration_ticks',
                'record_start_ticks',
                'angles',
                'speed',
                'also',
            ]) + (($own->also ?? null) instanceof \stdClass ? self::assoc($own->also) : []),
        );
        $kept = $this->keptOf($node, $reference);

        return new Item(
            self::text($node, 'name') ?: $source->name,
            $source,
            $begin,
            $duration,
            max($cursor, $at),
            ($node->enabled ?? true) !== false,
            $this->markers($node, $range[0], $where),
            $facts + ($kept === [] ? [] : [self::KEPT => $kept]),
            $look,
            $speed,
            $transition,
            $this->angles($own, $source, $where),
        );
    }

    private function angles(\stdClass $own, Source $source, string $where): ?Angles
    {
        if (!isset($own->angles)) {
            return null;
        }
        try {
            $angles = (new SequenceReader("$where.metadata.cartella.angles", self::assoc($own->angles)))->angles();
        } catch (InvalidSequence $bad) {
            $this->problem($where, $bad->getMessage());

            return null;
        }

        return $angles->list[$angles->current]['source']->id === $source->id ? $angles : null;
    }

    private function sourceRate(\stdClass $own, \stdClass $reference, \stdClass $node): ?FrameRate
    {
        try {
            if (is_string($own->source_rate ?? null)) {
                return FrameRate::parse($own->source_rate);
            }
        } catch (InvalidTime) {
            return null;
        }
        // Times of ours are at the rate of the cut.
        $written =
            $own == new \stdClass()
                ? $reference->available_range->start_time->rate ?? ($node->source_range->start_time->rate ?? null)
                : null;

        return is_numeric($written) ? FrameRate::near((float) $written) : null;
    }

    private function speed(\stdClass $node, \stdClass $own, string $where): Speed
    {
        $speed = new Speed();
        foreach (self::list($node, 'effects') as $effect) {
            $scalar = match ($effect instanceof \stdClass ? self::schema($effect) : '') {
                'FreezeFrame' => 0.0,
                'LinearTimeWarp' => is_numeric($effect->time_scalar ?? null) ? (float) $effect->time_scalar : 1.0,
                default => null,
            };
            if ($scalar === null) {
                continue;
            }
            if (!is_finite($scalar) || abs($scalar) > Speed::LARGEST || ($scalar !== 0.0 && abs($scalar) < 1 / Speed::LARGEST)) {
                $this->problem($where, 'The speed is none that can be played; it is read as normal');

                continue;
            }
            $speed = self::fraction($scalar);
        }
        try {
            $exact = is_string($own->speed ?? null) ? Speed::parse($own->speed) : $speed;
        } catch (InvalidSequence) {
            return $speed;
        }

        return abs($exact->num / $exact->den - $speed->num / $speed->den) < 1e-6 ? $exact : $speed;
    }

    private static function fraction(float $scalar): Speed
    {
        $size = abs($scalar);
        $best = [(int) round($size), 1];
        for ($den = 1; $den <= Speed::LARGEST; $den++) {
            $num = (int) round($size * $den);
            if ($num <= Speed::LARGEST && abs($size - $num / $den) < abs($size - $best[0] / $best[1]) - 1e-12) {
                $best = [$num, $den];
            }
        }

        return new Speed(($scalar < 0 ? -1 : 1) * $best[0], $best[1]);
    }

    /** @return list<Marker> */
    private function markers(\stdClass $node, int $from, string $where): array
    {
        $markers = [];
        foreach (self::list($node, 'markers') as $index => $marker) {
            $span = $marker instanceof \stdClass ? $this->span($marker->marked_range ?? null, "$where.markers.$index") : null;
            if ($span === null) {
                $this->problem("$where.markers.$index", 'The marker has no place');

                continue;
            }
            $own = self::own($marker);
            $markers[] = new Marker(
                self::exact($own->at_ticks ?? null, $span[0] - $from, 2 * self::SAMPLE),
                max(0, self::exact($own->duration_ticks ?? null, $span[1], self::SAMPLE)),
                self::text($marker, 'name'),
                self::text($marker, 'comment'),
            );
        }

        return $markers;
    }

    /** @return array<string, string> what of a clip is kept, as JSON text */
    private function keptOf(\stdClass $node, \stdClass $reference): array
    {
        $effects = array_values(
            array_filter(
                self::list($node, 'effects'),
                static fn(mixed $one): bool => !($one instanceof \stdClass) ||
                    !in_array(self::schema($one), ['LinearTimeWarp', 'FreezeFrame'], true),
            ),
        );
        $isKnown = in_array(self::schema($reference), ['ExternalReference', 'MissingReference', ''], true);
        $others = [];
        foreach ((array) ($node->media_references ?? []) as $key => $one) {
            if ($one !== $reference) {
                $others[$key] = $one;
            }
        }

        return array_filter([
            'metadata' => self::foreign($node),
            'effects' => self::filled($effects),
            'reference' => $isKnown ? null : self::json($reference),
            'reference_metadata' => $isKnown ? self::filled($reference->metadata ?? null) : null,
            'references' => $others === [] ? null : self::json((object) $others),
        ]);
    }

    private static function referenceOf(\stdClass $clip): \stdClass
    {
        $key = self::text($clip, 'active_media_reference_key') ?: 'DEFAULT_MEDIA';
        $reference = $clip->media_references->{$key} ?? ($clip->media_reference ?? null);

        return $reference instanceof \stdClass ? $reference : new \stdClass();
    }

    /** @return array{int, int}|null start and duration, ticks */
    private function span(mixed $range, string $where): ?array
    {
        if (!($range instanceof \stdClass)) {
            return null;
        }
        $start = $this->time($range->start_time ?? null, $where);
        $duration = $this->time($range->duration ?? null, $where);

        return $start === null || $duration === null ? null : [$start, $duration];
    }

    private function time(mixed $time, string $where): ?int
    {
        $value = $time instanceof \stdClass ? $time->value ?? null : null;
        $rate = $time instanceof \stdClass ? $time->rate ?? null : null;
        if (!(is_int($value) || is_float($value)) || !(is_int($rate) || is_float($rate)) || $rate <= 0 || !is_finite($value / $rate)) {
            $this->problem($where, 'It is no time');

            return null;
        }
        if (abs($value / $rate) > self::LATEST / Ticks::PER_SECOND) {
            $this->problem($where, 'The time lies further away than anything can');

            return null;
        }
        $known = FrameRate::near((float) $rate);
        if ($known !== null) {
            return (float) (int) $value === (float) $value
                ? Ticks::ofFrames((int) $value, $known)
                : (int) round($value * $known->ticksPerFrame());
        }

        return (float) (int) $rate === (float) $rate && (float) (int) $value === (float) $value
            ? Ticks::ofSamples((int) $value, (int) $rate)
            : (int) round(($value / $rate) * Ticks::PER_SECOND);
    }

    /** The ticks that were written beside a time, unless somebody changed the time since. */
    private static function exact(mixed $ticks, int $time, float $within): int
    {
        return is_int($ticks) && abs($ticks - $time) <= $within ? $ticks : $time;
    }

    private static function schema(\stdClass $node): string
    {
        return explode('.', self::text($node, 'OTIO_SCHEMA'))[0];
    }

    private static function text(\stdClass $node, string $field): string
    {
        return is_string($node->{$field} ?? null) ? $node->{$field} : '';
    }

    /** @return list<mixed> */
    private static function list(\stdClass $node, string $field): array
    {
        return is_array($node->{$field} ?? null) ? $node->{$field} : [];
    }

    private static function own(\stdClass $node): \stdClass
    {
        $own = $node->metadata->cartella ?? null;

        return $own instanceof \stdClass ? $own : new \stdClass();
    }

    /** Metadata of others, as JSON text; null where there are none. */
    private static function foreign(\stdClass $node): ?string
    {
        $metadata = (array) ($node->metadata ?? []);
        unset($metadata['cartella']);

        return $metadata === [] ? null : self::json((object) $metadata);
    }

    private static function filled(mixed $value): ?string
    {
        return $value === null || $value === [] || $value == new \stdClass() || is_scalar($value) ? null : self::json($value);
    }

    /**
     * @param  list<string>  $known
     * @return array<string, mixed>
     */
    private static function told(\stdClass $own, array $known): array
    {
        return array_diff_key(self::assoc($own), array_flip([...$known, self::KEPT]));
    }

    /** @return array<string, mixed> */
    private static function assoc(mixed $value): array
    {
        return (array) json_decode(self::json($value), true);
    }

    private static function json(mixed $value): string
    {
        return json_encode(
            $value,
            JSON_THROW_ON_ERROR |
                JSON_UNESCAPED_SLASHES |
                JSON_UNESCAPED_UNICODE |
                JSON_PRESERVE_ZERO_FRACTION |
                JSON_INVALID_UTF8_SUBSTITUTE,
        );
    }

    /** The path that an address names: relative to the list, or of the machine that wrote it; other addresses stay. */
    private static function path(string $url): ?string
    {
        if ($url === '') {
            return null;
        }
        if (preg_match('/\Afile:\/\/(?:localhost)?(\/.*)\z/is', $url, $part) === 1) {
            return self::line(rawurldecode($part[1]));
        }

        return self::line(preg_match('/\A[a-z][a-z0-9+.-]{1,20}:\/\//i', $url) === 1 ? $url : rawurldecode($url));
    }

    private static function line(string $text): string
    {
        return (string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', mb_scrub($text));
    }

    private function problem(string $path, string $why): void
    {
        if (count($this->problems) < self::MOST_PROBLEMS) {
            $this->problems[] = new ListProblem("$why.", path: $path);
        }
    }
}
