<?php

declare(strict_types=1);

namespace App\Domain\Productions;

use App\Domain\Undo\Undoables;
use App\Support\Topic;

/** What of a production's set-up can be taken back here. */
final class ProductionsUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('production_fields', Topic::Settings, 'a field');
    }
}
