<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Undo\Undoables;
use App\Support\Topic;

/** What of the screenings can be taken back. */
final class ScreeningUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('screening_notes', Topic::Notes, 'a note', take: 'take_id');
        $tables->table('take_ratings', Topic::Notes, 'the stars', take: 'take_id');
    }
}
