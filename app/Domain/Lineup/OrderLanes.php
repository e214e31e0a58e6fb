<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** The order of the lanes from top to bottom; a device that is not named stands behind the others. */
final class OrderLanes
{
    /** @param  list<string>  $letters */
    public function __invoke(Production $production, User $user, array $letters): void
    {
        DB::transaction(static function () use ($production, $letters, $user): void {
            $log = new ChangeLog();
            $place = array_flip($letters);
            foreach ($production->devices()->lockForUpdate()->orderBy('lane')->get() as $device) {
                $device->lane = ($place[$device->letter] ?? 100 + $device->lane) + 1;
                $log->save($device);
            }
            $log->finish($production, $user, 'Order the lanes');
        });
        Live::tell($production->id, Topic::Lanes);
    }
}
