<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Undo\Undoables;
use App\Support\Topic;

/** What of the cards, devices and volumes can be taken back. Copies and releases never are. */
final class CardsUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('cards', Topic::Cards, 'a card');
        $tables->table('devices', Topic::Settings, 'a device');
        $tables->table('stores', Topic::Settings, 'a volume for copies');
        $tables->table('shoot_days', Topic::Settings, 'a shoot day');
    }
}
