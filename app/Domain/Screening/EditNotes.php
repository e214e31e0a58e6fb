<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ScreeningNote;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\TakeRating;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/**
 * What people say of a take while they watch it: notes at the frame they saw or over a stretch, and stars. Each is its author's; others
 * read it. Every change is an undoable step.
 */
final class EditNotes
{
    /**
     * @param  Clip|null  $clip  the picture that was seen
     * @param  int  $atTicks  from its first frame
     * @param  int|null  $outTicks  where a stretch ends, exclusive; null for a frame
     * @param  StoredSequence|null  $reel  in which it was watched
     *
     * @throws Problem if the place lies outside the picture
     */
    public function add(
        Take $take,
        User $user,
        ?Clip $clip,
        int $atTicks,
        ?int $outTicks,
        string $text,
        ?StoredSequence $reel,
    ): ScreeningNote {
        $note = new ScreeningNote([
            'take_id' => $take->id,
            'clip_id' => $clip?->id,
            'user_id' => $user->id,
            'sequence_id' => $reel?->id,
            'at_ticks' => $atTicks,
            'out_ticks' => $outTicks,
            'text' => $text,
        ]);
        $end = $outTicks ?? $atTicks + 1;
        if ($end <= $atTicks || ($clip !== null && $end > (int) $clip->duration_ticks)) {
            throw Problem::refused('note.place', 'That place lies outside the picture.', 'Go to the frame that is meant and say it again.');
        }
        self::step($take, $user, "Note on {$take->label()}", static fn(ChangeLog $log) => $log->save($note));

        return $note;
    }

    /** @throws Problem if it is somebody else's */
    public function change(ScreeningNote $note, User $user, string $text): void
    {
        self::refuseOthers($note, $user);
        $note->text = $text;
        self::step($note->take, $user, "Change a note on {$note->take->label()}", static fn(ChangeLog $log) => $log->save($note));
    }

    /** @throws Problem if it is somebody else's */
    public function remove(ScreeningNote $note, User $user): void
    {
        self::refuseOthers($note, $user);
        self::step($note->take, $user, "Remove a note on {$note->take->label()}", static fn(ChangeLog $log) => $log->delete($note));
    }

    /** @param  int|null  $stars  1 to 5; null takes the person's own away */
    public function rate(Take $take, User $user, ?int $stars): void
    {
        $own = ['take_id' => $take->id, 'user_id' => $user->id];
        $rating = TakeRating::query()->where($own)->first() ?? new TakeRating($own);
        if ($stars === null && !$rating->exists) {
            return;
        }
        $rating->stars = $stars ?? $rating->stars;
        self::step(
            $take,
            $user,
            $stars === null ? "Take the stars from {$take->label()}" : "Give {$take->label()} $stars of 5",
            static fn(ChangeLog $log) => $stars === null ? $log->delete($rating) : $log->save($rating),
        );
    }

    private static function refuseOthers(ScreeningNote $note, User $user): void
    {
        if ($note->user_id !== $user->id) {
            throw Problem::refused(
                'note.others',
                'That note is ' . ($note->user->name ?? 'somebody else') . '\'s.',
                'Say your own beside it.',
            );
        }
    }

    /** @param  callable(ChangeLog): void  $work */
    private static function step(Take $take, User $user, string $label, callable $work): void
    {
        DB::transaction(static function () use ($take, $user, $label, $work): void {
            $log = new ChangeLog();
            $work($log);
            $log->finish($take->production, $user, $label);
        });
        Live::tell($take->production_id, Topic::Notes, ['take' => $take->ulid]);
        // It stands in the take's row of the log, too.
        Live::tell($take->production_id, Topic::Takes, ['take' => $take->ulid, 'words' => true]);
    }
}
