<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Log\ScriptNotes\BringNotes;
use App\Domain\Undo\Undoables;
use App\Models\Change;
use App\Models\ScriptNoteFile;
use App\Support\Problem;
use App\Support\Topic;

/** What of the log can be taken back. */
final class LogUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table(
            'takes',
            Topic::Takes,
            'a take',
            take: 'id',
            together: [['scene', 'setup', 'take', 'part', 'sort_key']],
            byKey: ['set_by'],
            keyed: ['own'],
        );
        $tables->table('take_facts', Topic::Takes, 'what a file says', take: 'take_id');
        $tables->table('scenes', Topic::Takes, 'a scene');
        $tables->table('settled_points', Topic::Takes, 'an answer');
        $tables->table(
            'clips',
            Topic::Takes,
            'a clip',
            together: [['device_id', 'import_kind']],
            byKey: ['facts'],
            derived: ['proxied_at', 'media_recipe', 'problems'],
        );
        $tables->table(
            'take_parts',
            Topic::Takes,
            'what a clip belongs to',
            together: [['take_id', 'clip_id', 'in_ticks', 'out_ticks', 'said_by']],
            take: 'take_id',
        );
        $tables->table('productions', Topic::Patterns, 'a setting');
        $tables->guard(self::refuseWhileItComesIn(...));
    }

    private static function refuseWhileItComesIn(Change $change): void
    {
        $file = ScriptNoteFile::query()->where('change_id', $change->id)->whereNull('applied_at')->first();
        if ($file !== null && BringNotes::taskOf($file)?->isOver() === false) {
            throw Problem::refused(
                'undo.busy',
                "$file->name is still being brought in.",
                'Wait until it is done, or stop it; then take it back.',
            );
        }
    }
}
