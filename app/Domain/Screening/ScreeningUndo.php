<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Undo\Undoables;

/** What of the screenings can be taken back. */
final class ScreeningUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('notes', 'notes', 'a note');
        $tables->table('reels', 'reels', 'a reel');
        $tables->table('reel_items', 'reels', 'a piece of a reel');
    }
}
