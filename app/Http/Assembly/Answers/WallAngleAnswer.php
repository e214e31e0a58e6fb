<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Http\ListOf;
use App\Http\Sequences\Answers\PicturePieceAnswer;

/** One camera on the wall: its clips on the event's clock. */
final readonly class WallAngleAnswer
{
    /** @param  list<PicturePieceAnswer>  $pictures */
    public function __construct(
        public string $letter,
        public string $note,
        public bool $has_sound,
        #[ListOf(PicturePieceAnswer::class)] public array $pictures,
    ) {}
}
