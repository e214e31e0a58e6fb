<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\Undoables;
use App\Support\Topic;

/** What of clips themselves can be taken back. */
final class FootageUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('markers', Topic::Clips, 'a marker');
    }
}
