<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Domain\Footage\ClipMedia;
use App\Domain\Sequences\PicturePiece;
use App\Http\Lineup\Answers\ClipLookAnswer;
use App\Http\Shell\Answers\RateAnswer;
use Cartella\Core\Time\FrameRate;

/** A stretch of picture that plays. Ticks: `at` on the playlist's clock, `in` from the clip's first frame; `clip` is its whole length. */
final readonly class PicturePieceAnswer
{
    public function __construct(
        public string $clip,
        public ?string $take,
        public string $name,
        public int $at_ticks,
        public int $duration_ticks,
        public int $in_ticks,
        public ?int $start_ticks,
        public int $clip_ticks,
        public ?int $frames,
        public RateAnswer $rate,
        public string $media_version,
        public ?ClipLookAnswer $look,
    ) {}

    public static function of(PicturePiece $piece, FrameRate $usual): self
    {
        return new self(
            $piece->clip->ulid,
            $piece->take?->ulid,
            $piece->name,
            $piece->atTicks,
            $piece->durationTicks,
            $piece->inTicks,
            $piece->clip->start_ticks,
            $piece->clip->playableTicks(),
            $piece->clip->frames,
            RateAnswer::of($piece->clip->rate() ?? $usual),
            ClipMedia::version($piece->clip),
            ClipLookAnswer::of($piece->clip),
        );
    }
}
