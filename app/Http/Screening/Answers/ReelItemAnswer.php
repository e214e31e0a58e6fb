<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Domain\Sequences\PicturePiece;
use App\Models\Clip;
use App\Models\ScreeningNote;
use App\Models\Take;
use Cartella\Core\Time\FrameRate;

/**
 * One piece of a reel: a take, the pictures that show it, and what was said of it. Ticks from the first
 * frame of `clip`, but for `at`, which is of the reel's clock.
 */
final readonly class ReelItemAnswer
{
    /**
     * @param  list<ReelAngleAnswer>  $angles
     * @param  list<ReelNoteAnswer>  $notes  newest first
     */
    public function __construct(
        public int $position,
        public string $clip,
        public int $at_ticks,
        public int $in_ticks,
        public int $out_ticks,
        public ReelTakeAnswer $take,
        public array $angles,
        public array $notes,
    ) {}

    /** @param  list<array{clip: Clip, in: int, out: int, at: int}>  $angles */
    public static function of(int $position, PicturePiece $piece, Take $take, array $angles, FrameRate $usual): self
    {
        return new self(
            $position,
            $piece->clip->ulid,
            $piece->atTicks,
            $piece->inTicks,
            $piece->inTicks + $piece->durationTicks,
            ReelTakeAnswer::of($take),
            array_map(static fn(array $angle): ReelAngleAnswer => ReelAngleAnswer::of($angle, $usual), $angles),
            $take->screeningNotes
                ->sortByDesc('id')
                ->map(static fn(ScreeningNote $note): ReelNoteAnswer => ReelNoteAnswer::of($note, $usual))
                ->values()
                ->all(),
        );
    }
}
