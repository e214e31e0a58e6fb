<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Otio;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * Writes sequences as OpenTimelineIO JSON: `Timeline.1`, `Stack.1`, `Track.1`, `Clip.2`, `Gap.1`, `Transition.1`, `Marker.2`,
 * `LinearTimeWarp.1`, `FreezeFrame.1`, `ExternalReference.1`, `MissingReference.1`, and bins as `SerializableCollection.1`.
 * What has no place there goes under a `cartella` metadata key; what {@see OtioReader} kept of others is written back.
 *
 * Times are frames at the sequence's rate; what does not begin on a frame is written in samples at 48 kHz, so that
 * sound keeps its place exactly.
 */
final class OtioWriter
{
    private const SAMPLE_RATE = 48000;

    private const FLAGS =
        JSON_THROW_ON_ERROR |
        JSON_PRETTY_PRINT |
        JSON_UNESCAPED_SLASHES |
        JSON_UNESCAPED_UNICODE |
        JSON_INVALID_UTF8_SUBSTITUTE |
        JSON_PRESERVE_ZERO_FRACTION;

    private const DISSOLVE = 'SMPTE_Dissolve';

    /** @param  array<string, mixed>  $foreign  what a reader kept of the file, see {@see OtioReader} */
    private function __construct(private readonly FrameRate $rate, private readonly array $foreign) {}

    public static function write(Sequence $sequence): string
    {
        $foreign = $sequence->metadata[OtioReader::KEPT] ?? [];
        $writer = new self($sequence->rate, is_array($foreign) ? $foreign : []);

        return json_encode($writer->timeline($sequence), self::FLAGS) . "\n";
    }

    /**
     * A bin: its clips, each whole or a stretch of it, in their order, with bins in it.
     *
     * @param  list<Item>  $items  their places on the record side say nothing here
     * @param  array<string, mixed>  $metadata
     * @param  list<array{name: string, items: list<Item>}>  $bins
     */
    public static function collection(string $name, array $items, FrameRate $rate, array $metadata = [], array $bins = []): string
    {
        $writer = new self($rate, []);
        $of = static fn(string $name, array $children, array $metadata): array => [
            'OTIO_SCHEMA' => 'SerializableCollection.1',
            'metadata' => ['cartella' => (object) $metadata],
            'name' => $name,
            'children' => $children,
        ];
        $clips = static fn(array $items): array => array_map(static fn(Item $item): array => $writer->clip($item), $items);
        $inside = array_map(static fn(array $bin): array => $of($bin['name'], $clips($bin['items']), []), $bins);

        return json_encode($of($name, [...$clips($items), ...$inside], $metadata), self::FLAGS) . "\n";
    }

    /** @return array<string, mixed> */
    private function timeline(Sequence $sequence): array
    {
        $own = $sequence->metadata;
        unset($own[OtioReader::KEPT]);

        return [
            'OTIO_SCHEMA' => 'Timeline.1',
            'metadata' => [
                'cartella' => ['rate' => $this->rate->label(), 'start_ticks' => $sequence->startTicks] + $own,
                ...self::kept($this->foreign, 'metadata'),
            ],
            'name' => $sequence->title,
            'global_start_time' => $this->time($sequence->startTicks),
            'tracks' => [
                'OTIO_SCHEMA' => 'Stack.1',
                'metadata' => (object) self::kept($this->foreign, 'stack'),
                'name' => 'tracks',
                'source_range' => null,
                'effects' => [],
                'markers' => array_values(self::kept($this->foreign, 'markers')),
                'enabled' => true,
                'children' => [...array_map($this->track(...), $sequence->tracks, array_keys($sequence->tracks)), ...$this->others()],
            ],
        ];
    }

    /** @return list<array{track: int, at_ticks: int, duration_ticks: int, json: string}> what stood on the tracks and nobody knew */
    private function strangers(int $track): array
    {
        $kept = is_array($this->foreign['children'] ?? null) ? $this->foreign['children'] : [];
        $isWhole = static fn(mixed $one): bool => is_array($one) &&
            ($one['track'] ?? null) === $track &&
            is_int($one['at_ticks'] ?? null) &&
            is_int($one['duration_ticks'] ?? null) &&
            is_string($one['json'] ?? null);

        return array_values(array_filter($kept, $isWhole));
    }

    /**
     * @param  array<array-key, mixed>  $from
     * @return array<array-key, mixed>
     */
    private static function kept(array $from, string $what): array
    {
        $value = is_string($from[$what] ?? null) ? json_decode($from[$what]) : null;

        return is_object($value) || is_array($value) ? (array) $value : [];
    }

    /** @return list<mixed> tracks that are neither picture nor sound */
    private function others(): array
    {
        $others = is_array($this->foreign['others'] ?? null) ? $this->foreign['others'] : [];

        return array_values(
            array_filter(array_map(static fn(mixed $one): mixed => is_string($one) ? json_decode($one) : null, $others), is_object(...)),
        );
    }

    /** @return array<string, mixed> */
    private function track(Track $track, int $number): array
    {
        $children = [];
        $end = 0;
        $foreign = $this->strangers($number);
        foreach ($track->items as $item) {
            array_push($children, ...$this->between($end, $item->recordStartTicks, $foreign));
            if ($item->transition !== null) {
                $children[] = $this->transition($item->transition);
            }
            $children[] = $this->clip($item);
            if ($item->ending !== null) {
                $children[] = $this->transition($item->ending);
            }
            $end = $item->recordEndTicks();
        }
        $last = max([$end, ...array_map(static fn(array $one): int => $one['at_ticks'] + $one['duration_ticks'], $foreign)]);
        array_push($children, ...$this->between($end, $last, $foreign));
        $own = [...$track->role === '' ? [] : ['role' => $track->role], ...$track->locked ? ['locked' => true] : []];
        $about = is_array($this->foreign['tracks'] ?? null) ? $this->foreign['tracks'][$number] ?? [] : [];
        $about = is_array($about) ? $about : [];

        return [
            'OTIO_SCHEMA' => 'Track.1',
            'metadata' => (object) [...$own === [] ? [] : ['cartella' => $own], ...self::kept($about, 'metadata')],
            'name' => $track->name,
            'kind' => $track->kind === TrackKind::Picture ? 'Video' : 'Audio',
            'source_range' => null,
            'effects' => array_values(self::kept($about, 'effects')),
            'markers' => array_values(self::kept($about, 'markers')),
            'enabled' => $track->enabled,
            'children' => $children,
        ];
    }

    /**
     * A gap, or in it what somebody else's file had there and nobody knew.
     *
     * @param  list<array{track: int, at_ticks: int, duration_ticks: int, json: string}>  $foreign
     * @return list<mixed>
     */
    private function between(int $from, int $to, array $foreign): array
    {
        $children = [];
        foreach ($foreign as $one) {
            if ($one['at_ticks'] < $from || $to < $one['at_ticks'] + $one['duration_ticks']) {
                continue;
            }
            if ($one['at_ticks'] > $from) {
                $children[] = $this->gap($one['at_ticks'] - $from);
            }
            $children[] = json_decode($one['json']);
            $from = $one['at_ticks'] + $one['duration_ticks'];
        }

        return $to > $from ? [...$children, $this->gap($to - $from)] : $children;
    }

    /** @return array<string, mixed> */
    private function gap(int $durationTicks): array
    {
        return [
            'OTIO_SCHEMA' => 'Gap.1',
            'metadata' => (object) [],
            'name' => '',
            'source_range' => $this->range(0, $durationTicks),
            'effects' => [],
            'markers' => [],
            'enabled' => true,
        ];
    }

    /** @return array<string, mixed> */
    private function transition(Transition $transition): array
    {
        $isDissolve = $transition->name === 'dissolve';

        return [
            'OTIO_SCHEMA' => 'Transition.1',
            'metadata' => (object) [],
            'name' => $transition->name,
            'transition_type' => $isDissolve ? self::DISSOLVE : 'Custom_Transition',
            'in_offset' => $this->time($transition->beforeTicks),
            'out_offset' => $this->time($transition->durationTicks - $transition->beforeTicks),
        ];
    }

    /** @return array<string, mixed> */
    private function clip(Item $item): array
    {
        $source = $item->source;
        // Backwards, the range is what is read of the source all the same.
        $read = $item->speed->num < 0 ? $item->sourceEndTicks() : $item->sourceStartTicks;
        $begin = $source->startTicks + $read;
        $facts = $item->told();
        $foreign = is_array($facts[OtioReader::KEPT] ?? null) ? $facts[OtioReader::KEPT] : [];
        unset($facts[OtioReader::KEPT]);
        $own = [
            'source_id' => $source->id,
            'reel' => $source->reel,
            ...$source->rate === null ? [] : ['source_rate' => $source->rate->label()],
            'source_from_ticks' => $source->startTicks,
            'source_duration_ticks' => $source->durationTicks,
            'source_start_ticks' => $item->sourceStartTicks,
            'duration_ticks' => $item->durationTicks,
            'record_start_ticks' => $item->recordStartTicks,
            ...$item->angles === null ? [] : ['angles' => $item->angles->toArray()],
            ...$item->speed->isPlain() ? [] : ['speed' => (string) $item->speed],
        ];
        $clash = array_intersect_key($facts, $own);
        $reference = self::kept($foreign, 'reference');

        return [
            'OTIO_SCHEMA' => 'Clip.2',
            'metadata' => [
                'cartella' => $own + $facts + ($clash === [] ? [] : ['also' => $clash]),
                ...self::kept($foreign, 'metadata'),
            ],
            'name' => $item->name,
            'source_range' => $this->range($begin, $item->durationTicks),
            'effects' => [...$this->warp($item), ...array_values(self::kept($foreign, 'effects'))],
            'markers' => array_map(fn(Marker $marker): array => $this->marker($marker, $begin), $item->markers),
            'enabled' => $item->enabled,
            'media_references' => [
                'DEFAULT_MEDIA' => $reference === [] ? $this->reference($source, self::kept($foreign, 'reference_metadata')) : $reference,
                ...self::kept($foreign, 'references'),
            ],
            'active_media_reference_key' => 'DEFAULT_MEDIA',
        ];
    }

    /** @return list<array<string, mixed>> */
    private function warp(Item $item): array
    {
        if ($item->speed->isPlain()) {
            return [];
        }
        $isFrozen = $item->speed->num === 0;

        return [
            [
                'OTIO_SCHEMA' => $isFrozen ? 'FreezeFrame.1' : 'LinearTimeWarp.1',
                'metadata' => (object) [],
                'name' => '',
                'effect_name' => $isFrozen ? 'FreezeFrame' : 'LinearTimeWarp',
                'time_scalar' => $item->speed->num / $item->speed->den,
            ],
        ];
    }

    /** @return array<string, mixed> */
    private function marker(Marker $marker, int $begin): array
    {
        return [
            'OTIO_SCHEMA' => 'Marker.2',
            'metadata' => [
                'cartella' => ['at_ticks' => $marker->atTicks, 'duration_ticks' => $marker->durationTicks],
            ],
            'name' => $marker->name,
            'comment' => $marker->note,
            'color' => 'GREEN',
            'marked_range' => $this->range($begin + $marker->atTicks, $marker->durationTicks),
        ];
    }

    /**
     * @param  array<array-key, mixed>  $metadata
     * @return array<string, mixed>
     */
    private function reference(Source $source, array $metadata): array
    {
        $about = [
            'metadata' => (object) $metadata,
            'name' => $source->name,
            'available_range' => $this->range($source->startTicks, $source->durationTicks),
            'available_image_bounds' => null,
        ];

        return $source->path === null
            ? ['OTIO_SCHEMA' => 'MissingReference.1'] + $about
            : ['OTIO_SCHEMA' => 'ExternalReference.1'] + $about + ['target_url' => self::url($source->path)];
    }

    /** A path relative to the list, percent-encoded by its parts; an address that is one stays as it is. */
    private static function url(string $path): string
    {
        if (preg_match('/\A[a-z][a-z0-9+.-]{1,20}:\/\//i', $path) === 1) {
            return $path;
        }

        return ($path[0] === '/' ? 'file://' : '') . implode('/', array_map(rawurlencode(...), explode('/', $path)));
    }

    /** @return array<string, mixed> */
    private function range(int $startTicks, int $durationTicks): array
    {
        return [
            'OTIO_SCHEMA' => 'TimeRange.1',
            'start_time' => $this->time($startTicks),
            'duration' => $this->time($durationTicks),
        ];
    }

    /** @return array{OTIO_SCHEMA: string, rate: float, value: float} */
    private function time(int $ticks): array
    {
        $onFrame = $ticks % $this->rate->ticksPerFrame() === 0;

        return [
            'OTIO_SCHEMA' => 'RationalTime.1',
            'rate' => (float) ($onFrame ? $this->rate->num / $this->rate->den : self::SAMPLE_RATE),
            'value' => (float) ($onFrame ? Ticks::toFrames($ticks, $this->rate) : Ticks::toSamples($ticks, self::SAMPLE_RATE)),
        ];
    }
}
