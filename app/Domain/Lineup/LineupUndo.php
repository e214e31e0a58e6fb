<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\Undoables;
use App\Models\Change;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** What of the line-up can be taken back, and the sound that follows it. */
final class LineupUndo
{
    public static function register(Undoables $tables): void
    {
        // A place is one thing: half of an older one would be a place that nobody found.
        $tables->table(
            'placements',
            Topic::Lineup,
            'a place',
            together: [['group', 'start_ticks', 'way', 'confidence', 'is_sure', 'drift_ppm', 'evidence', 'stray_reason']],
        );
        $tables->table('clock_offsets', Topic::Lineup, 'a clock');
        $tables->table('looks', Topic::Looks, 'a look');
        $tables->after(self::layAgain(...));
    }

    /** Sound that was laid under a picture follows it back to where it was, and to what was heard of it. */
    private static function layAgain(Change $change): void
    {
        foreach ($change->stepsOf('takes') as $row) {
            if (array_key_exists('listening', $row['before'] ?? [])) {
                SoundOfTake::layAgain((int) $row['id']);
            }
        }
        foreach ($change->stepsOf('placements') as $row) {
            if (array_intersect_key($row['before'] ?? [], ['start_ticks' => true, 'drift_applied' => true]) !== []) {
                $clip = DB::table('placements')->where('id', $row['id'])->value('clip_id');
                if ($clip !== null) {
                    LaySoundJob::dispatch((int) $clip)->onQueue('media');
                }
            }
        }
    }
}
