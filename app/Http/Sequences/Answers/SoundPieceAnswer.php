<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Domain\Footage\ClipMedia;
use App\Domain\Sequences\SoundPiece;

/** A stretch of sound that is heard under the pictures. Ticks: `at` on the playlist's clock, `in` from the recording's start. */
final readonly class SoundPieceAnswer
{
    /**
     * @param  list<array{index: int, gain_db: float}>  $channels  those that are heard, from 1
     * @param  float  $drift_ppm  by which the picture's clock is faster; taken out when it plays
     */
    public function __construct(
        public string $clip,
        public ?string $take,
        public string $name,
        public int $at_ticks,
        public int $duration_ticks,
        public int $in_ticks,
        public array $channels,
        public float $drift_ppm,
        public int $fade_in_ticks,
        public int $fade_out_ticks,
        public ?int $track,
        public float $gain_db,
        public string $media_version,
    ) {}

    public static function of(SoundPiece $piece): self
    {
        return new self(
            $piece->clip->ulid,
            $piece->take?->ulid,
            $piece->name,
            $piece->atTicks,
            $piece->durationTicks,
            $piece->inTicks,
            array_map(
                static fn(int $index): array => ['index' => $index, 'gain_db' => $piece->channels[$index]],
                array_keys($piece->channels),
            ),
            $piece->driftPpm,
            $piece->fadeInTicks,
            $piece->fadeOutTicks,
            $piece->track,
            $piece->gainDb,
            ClipMedia::version($piece->clip),
        );
    }
}
