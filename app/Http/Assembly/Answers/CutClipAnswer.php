<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Domain\Footage\ClipMedia;
use App\Domain\Sequences\HeardUnder;
use App\Http\Lineup\Answers\ClipLookAnswer;
use App\Http\Shell\Answers\RateAnswer;
use App\Models\Clip;

/** A clip that items of a cut are of, with all that a player needs of it; ticks. */
final readonly class CutClipAnswer
{
    /**
     * @param  'picture'|'sound'|'still'|'other'  $kind
     * @param  list<array{index: int, gain_db: float}>  $heard  its channels where an item says nothing of them
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $kind,
        public ?string $device,
        public string $day,
        public int $duration_ticks,
        public bool $ready,
        public bool $has_sound,
        public string $media_version,
        public ?int $start_ticks,
        public ?int $frames,
        public RateAnswer $rate,
        public ?ClipLookAnswer $look,
        public array $heard,
    ) {}

    public static function of(Clip $clip): self
    {
        $heard = HeardUnder::usual($clip);

        return new self(
            $clip->ulid,
            $clip->title(),
            $clip->kind,
            $clip->device?->letter,
            $clip->day->ulid,
            $clip->playableTicks(),
            $clip->proxied_at !== null,
            ($clip->channels ?? []) !== [],
            ClipMedia::version($clip),
            $clip->start_ticks,
            $clip->frames,
            RateAnswer::of($clip->rate() ?? $clip->production->rate()),
            ClipLookAnswer::of($clip),
            array_map(
                static fn(int $index, float $gain): array => ['index' => $index, 'gain_db' => $gain],
                array_keys($heard),
                array_values($heard),
            ),
        );
    }
}
