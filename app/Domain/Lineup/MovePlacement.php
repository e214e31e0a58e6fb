<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Log\ChangeLog;
use App\Models\Clip;
use App\Models\Placement;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Illuminate\Support\Facades\DB;

/** Moves one clip along the clock by hand, or locks it where it is; undoable. A locked clip is not moved by line-up. */
final class MovePlacement
{
    /**
     * @param  int  $byTicks  later when positive
     * @param  int|null  $wasTicks  where the person saw it; null does not ask
     *
     * @throws Problem if the clip has no place yet, is locked, or was moved meanwhile
     */
    public function nudge(Clip $clip, User $user, int $byTicks, ?int $wasTicks): Placement
    {
        $placement = DB::transaction(function () use ($clip, $user, $byTicks, $wasTicks): Placement {
            $placement = $this->locked($clip);
            if ($placement->locked_at !== null) {
                throw Problem::refused('lineup.locked', $clip->name.' is locked.', 'Unlock it first.');
            }
            if ($wasTicks !== null && $wasTicks !== $placement->start_ticks) {
                throw Problem::editedMeanwhile($clip->name, [['field' => 'start_ticks', 'yours' => $wasTicks + $byTicks, 'theirs' => $placement->start_ticks]]);
            }
            $placement->start_ticks += $byTicks;
            $placement->way = 'hand';
            $placement->is_sure = true;
            $placement->confidence = 1;
            $this->keep($placement, $clip, $user, 'Nudge '.$clip->name);

            return $placement;
        });
        LaySoundJob::dispatch($clip->id)->onQueue('media');

        return $placement;
    }

    public function lock(Clip $clip, User $user, bool $lock): Placement
    {
        return DB::transaction(function () use ($clip, $user, $lock): Placement {
            $placement = $this->locked($clip);
            $placement->locked_at = $lock ? ($placement->locked_at ?? now()) : null;
            if ($lock) {
                $placement->is_sure = true; // a person has looked
            }
            $this->keep($placement, $clip, $user, ($lock ? 'Lock ' : 'Unlock ').$clip->name);

            return $placement;
        });
    }

    private function locked(Clip $clip): Placement
    {
        $placement = Placement::query()->where('clip_id', $clip->id)->lockForUpdate()->first();

        return $placement?->start_ticks !== null ? $placement : throw Problem::refused('lineup.stray', $clip->name.' has no place yet.', 'Line up the day first.');
    }

    private function keep(Placement $placement, Clip $clip, User $user, string $label): void
    {
        $log = new ChangeLog();
        $log->save($placement);
        $log->finish($clip->production, $user, $label);
        Live::tell($clip->production_id, 'lineup', ['clip' => $clip->ulid]);
    }
}
