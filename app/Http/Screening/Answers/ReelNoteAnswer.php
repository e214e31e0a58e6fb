<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\ScreeningNote;
use App\Support\Clock;
use Cartella\Core\Time\FrameRate;

/** What somebody said while watching a take, at the frame they saw. Ticks from the clip's first frame. */
final readonly class ReelNoteAnswer
{
    public function __construct(
        public string $ulid,
        public string $by,
        public string $text,
        public int $at_ticks,
        public ?string $clip,
        public ?string $timecode,
    ) {}

    public static function of(ScreeningNote $note, FrameRate $usual): self
    {
        return new self(
            $note->ulid,
            $note->user->name ?? 'Somebody',
            $note->text,
            $note->at_ticks,
            $note->clip?->ulid,
            $note->clip?->start_ticks === null
                ? null
                : Clock::label($note->clip->start_ticks + $note->at_ticks, $note->clip->rate() ?? $usual),
        );
    }
}
