<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Says of a recording that no picture belongs to it; undoable. */
final class MarkWild
{
    public function __invoke(Clip $clip, User $user): void
    {
        $this->all($clip->production, collect([$clip]), $user, true);
    }

    /** @param  Collection<int, Clip>  $clips  of one production */
    public function all(Production $production, Collection $clips, User $user, bool $isWild): void
    {
        DB::transaction(static function () use ($production, $clips, $user, $isWild): void {
            $log = new ChangeLog();
            foreach ($clips as $clip) {
                $clip->is_wild = $isWild;
                $log->save($clip);
            }
            $log->finish(
                $production,
                $user,
                ($clips->count() === 1 ? $clips->first()->title() . ' is ' : $clips->count() . ' clips are ') .
                    ($isWild ? 'wild' : 'not wild'),
            );
        });
        Live::tell($production->id, Topic::Takes);
    }
}
