<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Undo\Undoables;
use App\Models\Change;
use App\Models\Clip;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** What of words can be taken back. */
final class WordsUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table(
            'transcripts',
            Topic::Spoken,
            'the words of a clip',
            [['language', 'source', 'engine', 'model']],
            derived: ['user_id', 'calls'],
            clip: 'clip_id',
        );
        $tables->table(
            'passages',
            Topic::Spoken,
            'a passage',
            [['words', 'said', 'pairs', 'start_ticks', 'end_ticks']],
            derived: ['edited_by', 'edited_at'],
            clip: 'clip_id',
        );
        // Passages go with the words they are of.
        $tables->attached('passages');
        $tables->whole(self::whyNot(...));
        $tables->after(self::hearCalls(...));
    }

    /** Words that were found or brought go whole or not at all: passages of two findings side by side would say everything twice. */
    private static function whyNot(Change $change): ?string
    {
        if ($change->stepsOf('transcripts') === []) {
            return null;
        }
        $clips = DB::table('change_clips')->where('change_id', $change->id)->pluck('clip_id');
        // Whoever corrects words waits here.
        Clip::query()
            ->whereKey($clips)
            ->orderBy('id')
            ->lockForUpdate()
            ->get(['id']);
        $other = Change::query()
            ->with('user')
            ->select(['changes.id', 'changes.user_id', 'changes.label'])
            ->join('change_clips', 'change_clips.change_id', '=', 'changes.id')
            ->whereIn('change_clips.clip_id', $clips)
            ->where('changes.id', '>', $change->id)
            ->where('changes.user_id', '!=', $change->user_id)
            ->whereNull('changes.undone_at')
            ->first();

        return $other === null ? null : "{$other->user->name} has worked on these words since";
    }

    private static function hearCalls(Change $change): void
    {
        foreach (DB::table('change_clips')->where('change_id', $change->id)->pluck('clip_id') as $clip) {
            HeardCalls::keep((int) $clip);
        }
    }
}
