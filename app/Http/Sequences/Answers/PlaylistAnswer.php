<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Http\Shell\Answers\RateAnswer;

/**
 * What of a sequence or a clip plays when: pieces of picture and pieces of sound on one clock, and the recordings that the sound lies
 * in, so that any of their channels can be heard. Ticks; `start_ticks` is the first label.
 */
final readonly class PlaylistAnswer
{
    /**
     * @param  list<PicturePieceAnswer>  $pictures
     * @param  string|null  $sequence  null for a clip by itself
     * @param  list<SoundPieceAnswer>  $sounds
     * @param  list<SoundPieceAnswer>  $own_sounds  the pictures' own sound all along
     * @param  list<SoundPieceAnswer>  $beside_sounds  recordings that ran too and are not heard of themselves
     * @param  list<RecordingAnswer>  $recordings
     */
    public function __construct(
        public ?string $sequence,
        public int $step,
        public string $name,
        public RateAnswer $rate,
        public int $start_ticks,
        public int $duration_ticks,
        public array $pictures,
        public array $sounds,
        public array $own_sounds,
        public array $beside_sounds,
        public array $recordings,
    ) {}

    public static function of(Playlist $playlist): self
    {
        $rate = $playlist->sequence->rate;

        return new self(
            $playlist->stored?->ulid,
            $playlist->stored->step ?? 0,
            $playlist->stored->name ?? $playlist->sequence->title,
            RateAnswer::of($rate),
            $playlist->sequence->startTicks,
            $playlist->sequence->durationTicks(),
            array_map(static fn(PicturePiece $piece): PicturePieceAnswer => PicturePieceAnswer::of($piece, $rate), $playlist->pictures),
            array_map(SoundPieceAnswer::of(...), $playlist->sounds),
            array_map(SoundPieceAnswer::of(...), $playlist->own),
            array_map(SoundPieceAnswer::of(...), $playlist->beside),
            RecordingAnswer::all([...$playlist->sounds, ...$playlist->beside, ...$playlist->own]),
        );
    }
}
