<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Undo\Undoables;

/** What of the bins can be taken back. */
final class BinsUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('bins', 'bins', 'a bin');
        $tables->table('bin_items', 'bins', 'what was put in');
        $tables->table('subclips', 'bins', 'a subclip');
    }
}
