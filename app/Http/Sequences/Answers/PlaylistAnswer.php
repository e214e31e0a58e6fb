<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Http\Shell\Answers\RateAnswer;

/** What of a sequence plays when: pieces of picture and pieces of sound on one clock. Ticks; `start_ticks` is the first label. */
final readonly class PlaylistAnswer
{
    /**
     * @param  list<PicturePieceAnswer>  $pictures
     * @param  list<SoundPieceAnswer>  $sounds
     */
    public function __construct(
        public string $sequence,
        public int $step,
        public string $name,
        public RateAnswer $rate,
        public int $start_ticks,
        public int $duration_ticks,
        public array $pictures,
        public array $sounds,
    ) {}

    public static function of(Playlist $playlist): self
    {
        $rate = $playlist->sequence->rate;

        return new self(
            $playlist->stored->ulid,
            $playlist->stored->step,
            $playlist->stored->name,
            RateAnswer::of($rate),
            $playlist->sequence->startTicks,
            $playlist->sequence->durationTicks(),
            array_map(static fn(PicturePiece $piece): PicturePieceAnswer => PicturePieceAnswer::of($piece, $rate), $playlist->pictures),
            array_map(SoundPieceAnswer::of(...), $playlist->sounds),
        );
    }
}
