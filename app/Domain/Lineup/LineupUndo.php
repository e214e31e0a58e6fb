<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\Undoables;
use App\Support\Topic;

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
    }
}
