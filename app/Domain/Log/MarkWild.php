<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;

/** Says of a recording that no picture belongs to it; undoable. */
final class MarkWild
{
    public function __invoke(Clip $clip, User $user): void
    {
        $log = new ChangeLog();
        $clip->is_wild = true;
        $log->save($clip);
        $log->finish($clip->production, $user, $clip->name . ' is wild');
        Live::tell($clip->production_id, Topic::Takes);
    }
}
