<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * Writes a sequence as OpenTimelineIO JSON: `Timeline.1`, `Stack.1`, `Track.1`, `Clip.2`, `Gap.1`, `Marker.2`,
 * `ExternalReference.1`, `MissingReference.1`. What has no place there goes under a `cartella` metadata key.
 *
 * Times are frames at the sequence's rate; what does not begin on a frame is written in samples at 48 kHz, so that
 * sound keeps its place exactly.
 */
final class OtioWriter
{
    private const SAMPLE_RATE = 48000;

    public static function write(Sequence $sequence): string
    {
        $rate = $sequence->rate;
        $timeline = [
            'OTIO_SCHEMA' => 'Timeline.1',
            'metadata' => ['cartella' => ['rate' => $rate->label(), 'start_ticks' => $sequence->startTicks] + $sequence->metadata],
            'name' => $sequence->title,
            'global_start_time' => self::time($sequence->startTicks, $rate),
            'tracks' => [
                'OTIO_SCHEMA' => 'Stack.1',
                'metadata' => (object) [],
                'name' => 'tracks',
                'source_range' => null,
                'effects' => [],
                'markers' => [],
                'enabled' => true,
                'children' => array_map(static fn(Track $track): array => self::track($track, $rate), $sequence->tracks),
            ],
        ];

        return json_encode(
            $timeline,
            JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION,
        ) . "\n";
    }

    /** @return array<string, mixed> */
    private static function track(Track $track, FrameRate $rate): array
    {
        $children = [];
        $end = 0;
        foreach ($track->items as $item) {
            if ($item->recordStartTicks > $end) {
                $children[] = self::gap($item->recordStartTicks - $end, $rate);
            }
            $children[] = self::clip($item, $rate);
            $end = $item->recordEndTicks();
        }

        return [
            'OTIO_SCHEMA' => 'Track.1',
            'metadata' => (object) [],
            'name' => $track->name,
            'kind' => $track->kind === TrackKind::Picture ? 'Video' : 'Audio',
            'source_range' => null,
            'effects' => [],
            'markers' => [],
            'enabled' => true,
            'children' => $children,
        ];
    }

    /** @return array<string, mixed> */
    private static function gap(int $durationTicks, FrameRate $rate): array
    {
        return [
            'OTIO_SCHEMA' => 'Gap.1',
            'metadata' => (object) [],
            'name' => '',
            'source_range' => self::range(0, $durationTicks, $rate),
            'effects' => [],
            'markers' => [],
            'enabled' => true,
        ];
    }

    /** @return array<string, mixed> */
    private static function clip(Item $item, FrameRate $rate): array
    {
        $source = $item->source;
        $begin = $source->startTicks + $item->sourceStartTicks;
        $available = self::range($source->startTicks, $source->durationTicks, $rate);
        $reference =
            $source->path === null
                ? [
                    'OTIO_SCHEMA' => 'MissingReference.1',
                    'metadata' => (object) [],
                    'name' => $source->name,
                    'available_range' => $available,
                    'available_image_bounds' => null,
                ]
                : [
                    'OTIO_SCHEMA' => 'ExternalReference.1',
                    'metadata' => (object) [],
                    'name' => $source->name,
                    'available_range' => $available,
                    'available_image_bounds' => null,
                    'target_url' => implode('/', array_map('rawurlencode', explode('/', $source->path))),
                ];

        return [
            'OTIO_SCHEMA' => 'Clip.2',
            'metadata' => [
                'cartella' =>
                    [
                        'source_id' => $source->id,
                        'reel' => $source->reel,
                        'source_start_ticks' => $item->sourceStartTicks,
                        'duration_ticks' => $item->durationTicks,
                        'record_start_ticks' => $item->recordStartTicks,
                    ] + $item->told(),
            ],
            'name' => $item->name,
            'source_range' => self::range($begin, $item->durationTicks, $rate),
            'effects' => [],
            'markers' => array_map(
                static fn(Marker $marker): array => [
                    'OTIO_SCHEMA' => 'Marker.2',
                    'metadata' => (object) [],
                    'name' => $marker->name,
                    'comment' => $marker->note,
                    'color' => 'GREEN',
                    'marked_range' => self::range($begin + $marker->atTicks, $marker->durationTicks, $rate),
                ],
                $item->markers,
            ),
            'enabled' => $item->enabled,
            'media_references' => ['DEFAULT_MEDIA' => $reference],
            'active_media_reference_key' => 'DEFAULT_MEDIA',
        ];
    }

    /** @return array<string, mixed> */
    private static function range(int $startTicks, int $durationTicks, FrameRate $rate): array
    {
        return [
            'OTIO_SCHEMA' => 'TimeRange.1',
            'start_time' => self::time($startTicks, $rate),
            'duration' => self::time($durationTicks, $rate),
        ];
    }

    /** @return array{OTIO_SCHEMA: string, rate: float, value: float} */
    private static function time(int $ticks, FrameRate $rate): array
    {
        $onFrame = $ticks % $rate->ticksPerFrame() === 0;

        return [
            'OTIO_SCHEMA' => 'RationalTime.1',
            'rate' => (float) ($onFrame ? $rate->num / $rate->den : self::SAMPLE_RATE),
            'value' => (float) ($onFrame ? Ticks::toFrames($ticks, $rate) : Ticks::toSamples($ticks, self::SAMPLE_RATE)),
        ];
    }
}
