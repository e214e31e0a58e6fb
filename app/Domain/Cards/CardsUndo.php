<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Undo\Undoables;

/** What of the cards, devices and volumes can be taken back. Copies and releases never are. */
final class CardsUndo
{
    public static function register(Undoables $tables): void
    {
        $tables->table('cards', 'cards', 'a card');
        $tables->table('devices', 'settings', 'a device');
        $tables->table('stores', 'settings', 'a volume for copies');
        $tables->table('shoot_days', 'settings', 'a shoot day');
    }
}
