<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Undo\Undoables;
use App\Support\Topic;

/** What of the bins can be taken back. */
final class BinsUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('bins', Topic::Bins, 'a bin');
        $tables->table('bin_items', Topic::Bins, 'what was put in');
        $tables->table('subclips', Topic::Bins, 'a subclip');
        $tables->table('clip_marks', Topic::Clips, 'an in or out point');
    }
}
