<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Log\ChangeLog;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Says which device recorded some clips, in one undoable step; the device is the angle, so nothing else has to follow. */
final class AssignDevice
{
    /**
     * @param  Collection<int, Clip>  $clips
     * @return int clips that changed
     */
    public function __invoke(Production $production, User $user, Collection $clips, Device $device): int
    {
        $changed = DB::transaction(static function () use ($production, $user, $clips, $device): int {
            $log = new ChangeLog();
            $changed = 0;
            foreach ($clips as $clip) {
                if ($clip->device_id !== $device->id) {
                    $clip->device_id = $device->id;
                    $log->save($clip);
                    $changed++;
                }
            }
            $log->finish($production, $user, sprintf('%s %s', $changed === 1 ? $clips->firstWhere('device_id', $device->id)->name.' is' : "$changed clips are", lcfirst($device->title())));

            return $changed;
        });
        if ($changed > 0) {
            Live::tell($production->id, 'clips');
            Live::tell($production->id, 'takes');
        }

        return $changed;
    }
}
