<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

use Cartella\Core\Time\FrameRate;

/** The media that an item reads from: identity, file, reel and its own clock. Ticks throughout. */
final readonly class Source
{
    /** @param  int  $startTicks the source's own timecode at its first frame, since midnight */
    public function __construct(
        public string $id,
        public string $name,
        public ?string $path,
        public ?string $reel,
        public int $startTicks,
        public int $durationTicks,
        public ?FrameRate $rate,
    ) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'path' => $this->path,
            'reel' => $this->reel,
            'start_ticks' => $this->startTicks,
            'duration_ticks' => $this->durationTicks,
            'rate' => $this->rate?->label(),
        ];
    }
}
