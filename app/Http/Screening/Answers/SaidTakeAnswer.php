<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\ScreeningNote;
use App\Models\Take;
use App\Models\TakeRating;
use Cartella\Core\Time\FrameRate;

/** What was said of one take. */
final readonly class SaidTakeAnswer
{
    /**
     * @param  'none'|'circled'|'hold'|'ng'  $status
     * @param  list<ReelRatingAnswer>  $ratings
     * @param  list<ReelNoteAnswer>  $notes
     */
    public function __construct(
        public string $ulid,
        public string $label,
        public string $status,
        public string $description,
        public array $ratings,
        public array $notes,
    ) {}

    public static function of(Take $take, FrameRate $usual, int $who): self
    {
        return new self(
            $take->ulid,
            $take->label(),
            $take->status,
            $take->description,
            $take->ratings->map(static fn(TakeRating $one): ReelRatingAnswer => ReelRatingAnswer::of($one, $who))->all(),
            $take->screeningNotes->map(static fn(ScreeningNote $one): ReelNoteAnswer => ReelNoteAnswer::of($one, $usual, $who))->all(),
        );
    }
}
