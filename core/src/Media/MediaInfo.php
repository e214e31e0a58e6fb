<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Time\FrameRate;

/**
 * What one media file says of itself. Null wherever the file does not say; never the file system's date.
 *
 * Times are ticks; `$startTicks` counts from midnight. `$problems` are plain sentences.
 */
final readonly class MediaInfo
{
    /**
     * @param  'picture'|'sound'|'still'|'other'  $kind
     * @param  int|null  $frames  exact count of pictures
     * @param  string|null  $startSource  `tmcd`, `stream`, `format`, `bext` or `ixml`
     * @param  string|null  $createdAt  ISO 8601 as far as the file goes, without a zone where it names none
     * @param  list<array{index: int, name: string, function: ?string}>  $channels
     * @param  list<array{ticks: int, name: string, duration_ticks: int|null}>  $markers  from the file's start
     * @param  list<array{ticks: int, type: ?string, function: ?string, comment: ?string}>  $syncPoints
     * @param  list<int>  $audioStreams  count of channels per sound stream of a picture file
     * @param  list<string>  $problems
     * @param  bool  $isVariable  whether its pictures have a rate of their own choice; `rate` and `frames` are then those of a constant one
     */
    public function __construct(
        public string $path,
        public string $kind,
        public ?int $durationTicks = null,
        public ?FrameRate $rate = null,
        public ?int $frames = null,
        public ?int $startTicks = null,
        public ?string $startTimecode = null,
        public ?string $startSource = null,
        public ?string $createdAt = null,
        public ?int $width = null,
        public ?int $height = null,
        public int $rotation = 0,
        public ?int $sampleRate = null,
        public array $channels = [],
        public array $audioStreams = [],
        public ?string $tape = null,
        public ?Ixml $ixml = null,
        public ?array $bext = null,
        public array $markers = [],
        public array $syncPoints = [],
        public array $problems = [],
        public bool $isVariable = false,
    ) {}

    /** @return array<string, mixed> the entry that `cartella-core probe` prints */
    public function toArray(): array
    {
        return [
            'path' => mb_scrub($this->path),
            'kind' => $this->kind,
            'duration_ticks' => $this->durationTicks,
            'rate' => $this->rate?->label(),
            'variable_rate' => $this->isVariable,
            'start_ticks' => $this->startTicks,
            'start_timecode' => $this->startTimecode,
            'start_source' => $this->startSource,
            'created_at' => $this->createdAt,
            'frames' => $this->frames,
            'width' => $this->width,
            'height' => $this->height,
            'rotation' => $this->rotation,
            'sample_rate' => $this->sampleRate,
            'channels' => $this->channels,
            'scene' => $this->ixml?->scene,
            'take' => $this->ixml?->take,
            'tape' => $this->ixml->tape ?? $this->tape,
            'circled' => $this->ixml?->circled,
            'note' => $this->ixml?->note,
            'markers' => $this->markers,
            'sync_points' => $this->syncPoints,
            'bext' => $this->bext,
            'ixml' => $this->ixml === null ? null : get_object_vars($this->ixml),
            'problems' => $this->problems,
        ];
    }
}
