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
     * @param  int|null  $slate_ticks  where the slate closes
     * @param  int  $action_ticks  where the action begins
     * @param  list<ReelAngleAnswer>  $angles
     * @param  list<ReelNoteAnswer>  $notes  newest first
     * @param  list<ReelMarkerAnswer>  $markers  of its pictures, where those are shown
     */
    public function __construct(
        public int $position,
        public string $clip,
        public int $at_ticks,
        public int $in_ticks,
        public int $out_ticks,
        public ?int $slate_ticks,
        public int $action_ticks,
        public ReelTakeAnswer $take,
        public array $angles,
        public array $notes,
        public array $markers,
    ) {}

    /**
     * @param  list<array{clip: Clip, in: int, out: int, at: int}>  $angles
     * @param  int|null  $who  who asks; null for somebody from outside, who is told nothing that was said
     */
    public static function of(int $position, PicturePiece $piece, Take $take, array $angles, FrameRate $usual, ?int $who): self
    {
        return new self(
            $position,
            $piece->clip->ulid,
            $piece->atTicks,
            $piece->inTicks,
            $piece->inTicks + $piece->durationTicks,
            isset($piece->facts['slate']) ? (int) $piece->facts['slate'] : null,
            (int) ($piece->facts['action'] ?? $piece->inTicks),
            ReelTakeAnswer::of($take, $who),
            array_map(static fn(array $angle): ReelAngleAnswer => ReelAngleAnswer::of($angle, $usual), $angles),
            $who === null
                ? []
                : $take->screeningNotes
                    ->sortByDesc('id')
                    ->map(static fn(ScreeningNote $note): ReelNoteAnswer => ReelNoteAnswer::of($note, $usual, $who))
                    ->values()
                    ->all(),
            $who === null ? [] : self::markers($angles),
        );
    }

    /**
     * @param  list<array{clip: Clip, in: int, out: int, at: int}>  $angles
     * @return list<ReelMarkerAnswer>
     */
    private static function markers(array $angles): array
    {
        $markers = [];
        foreach ($angles as $angle) {
            foreach ($angle['clip']->markers->sortBy('in_ticks') as $marker) {
                if ($marker->in_ticks >= $angle['in'] && $marker->in_ticks < $angle['out']) {
                    $markers[] = ReelMarkerAnswer::of($marker, $angle['clip']->ulid);
                }
            }
        }

        return $markers;
    }
}
