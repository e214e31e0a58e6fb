<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Undo\ChangeLog;
use App\Models\Reel;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Takes a reel away, undoable; takes, circles and notes stay. */
final class RemoveReel
{
    public function __invoke(Reel $reel, User $user): void
    {
        DB::transaction(static function () use ($reel, $user): void {
            $log = new ChangeLog();
            foreach ($reel->items as $item) {
                $log->delete($item);
            }
            $log->delete($reel);
            $log->finish($reel->production, $user, "Remove the reel $reel->name");
        });
        Live::tell($reel->production_id, Topic::Reels);
    }
}
