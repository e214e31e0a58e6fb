<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Domain\Footage\ClipMedia;
use App\Http\Lineup\Answers\ClipLookAnswer;
use App\Http\Shell\Answers\RateAnswer;
use App\Models\Clip;
use Cartella\Core\Time\FrameRate;

/** A picture of a piece of a reel: from where to where it shows the take. Ticks from its first frame. */
final readonly class ReelAngleAnswer
{
    public function __construct(
        public string $clip,
        public string $name,
        public ?string $device,
        public ?string $device_note,
        public ?int $start_ticks,
        public int $at_ticks,
        public int $in_ticks,
        public int $out_ticks,
        public int $duration_ticks,
        public ?int $frames,
        public string $media_version,
        public RateAnswer $rate,
        public ?ClipLookAnswer $look,
    ) {}

    /** @param  array{clip: Clip, in: int, out: int, at: int}  $angle */
    public static function of(array $angle, FrameRate $usual): self
    {
        $clip = $angle['clip'];

        return new self(
            $clip->ulid,
            $clip->title(),
            $clip->device?->letter,
            $clip->device?->note,
            $clip->start_ticks,
            $angle['at'],
            $angle['in'],
            $angle['out'],
            (int) $clip->duration_ticks,
            $clip->frames,
            ClipMedia::version($clip),
            RateAnswer::of($clip->rate() ?? $usual),
            ClipLookAnswer::of($clip),
        );
    }
}
