<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Domain\Footage\ClipMedia;
use App\Models\Clip;

/** A clip that items of a cut are of; ticks. */
final readonly class CutClipAnswer
{
    /** @param  'picture'|'sound'|'other'  $kind */
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
    ) {}

    public static function of(Clip $clip): self
    {
        return new self(
            $clip->ulid,
            $clip->title(),
            $clip->isPicture() ? 'picture' : ($clip->isSound() ? 'sound' : 'other'),
            $clip->device?->letter,
            $clip->day->ulid,
            (int) $clip->duration_ticks,
            $clip->proxied_at !== null,
            ($clip->channels ?? []) !== [],
            ClipMedia::version($clip),
        );
    }
}
