<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\ScreeningNote;
use App\Support\Clock;
use Cartella\Core\Time\FrameRate;

/** What somebody said while watching a take, at the frame they saw or over a stretch. Ticks from the clip's first frame. */
final readonly class ReelNoteAnswer
{
    /** @param  int|null  $out_ticks  where the stretch ends, exclusive; null for a frame */
    public function __construct(
        public string $ulid,
        public string $by,
        public bool $mine,
        public string $text,
        public int $at_ticks,
        public ?int $out_ticks,
        public ?string $clip,
        public ?string $timecode,
        public ?string $at,
    ) {}

    public static function of(ScreeningNote $note, FrameRate $usual, int $who): self
    {
        return new self(
            $note->ulid,
            $note->user->name ?? 'Somebody',
            $note->user_id === $who,
            $note->text,
            $note->at_ticks,
            $note->out_ticks,
            $note->clip?->ulid,
            $note->clip?->start_ticks === null
                ? null
                : Clock::label($note->clip->start_ticks + $note->at_ticks, $note->clip->rate() ?? $usual),
            $note->created_at?->toIso8601String(),
        );
    }
}
