<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Placement;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Time\Ticks;
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
                throw Problem::refused('lineup.locked', $clip->title() . ' is locked.', 'Unlock it first.');
            }
            if ($wasTicks !== null && $wasTicks !== $placement->start_ticks) {
                throw Problem::editedMeanwhile($clip->title(), [
                    ['field' => 'start_ticks', 'yours' => $wasTicks + $byTicks, 'theirs' => $placement->start_ticks],
                ]);
            }
            $placement->start_ticks += $byTicks;
            $placement->way = 'hand';
            $placement->is_sure = true;
            $placement->confidence = 1;
            $this->keep($placement, $clip, $user, 'Nudge ' . $clip->title());

            return $placement;
        });

        return $placement;
    }

    /**
     * Puts a clip where a person says it lies, placed or not, and locks it there.
     *
     * @param  int  $startTicks  on the day's clock
     * @param  int|null  $wasTicks  where the person saw it; null for a stray
     * Where the clip hangs together with others that nothing tied to the day's recordings, all of them come along: it is
     * what they have in common with it that was found, and not where they lie.
     *
     * @param  array<string, mixed>  $evidence  what the person went by
     * @param  int  $group  of what it was tied to
     *
     * @throws Problem if it was moved meanwhile
     */
    public function place(Clip $clip, User $user, int $startTicks, ?int $wasTicks, array $evidence, int $group = 0): Placement
    {
        $placement = DB::transaction(function () use ($clip, $user, $startTicks, $wasTicks, $evidence, $group): Placement {
            // The day's row is the gate: two people who place the same stray come one after the other.
            ShootDay::query()->lockForUpdate()->findOrFail($clip->shoot_day_id);
            $placement =
                Placement::query()->where('clip_id', $clip->id)->lockForUpdate()->first() ??
                new Placement(['clip_id' => $clip->id, 'shoot_day_id' => $clip->shoot_day_id]);
            if ($placement->start_ticks !== $wasTicks) {
                throw Problem::editedMeanwhile($clip->title(), [
                    ['field' => 'start_ticks', 'yours' => $startTicks, 'theirs' => $placement->start_ticks],
                ]);
            }
            $this->refuseOverlap($clip, $startTicks, $group);
            $log = new ChangeLog();
            $others = $this->together($placement, $group);
            foreach ($others as $other) {
                $byTicks = $startTicks - (int) $placement->start_ticks;
                $this->refuseOverlap($other->clip, $other->start_ticks + $byTicks, $group);
                $other->start_ticks += $byTicks;
                $other->group = $group;
                $other->evidence = array_diff_key($other->evidence ?? [], ['laid_by' => true]);
                $log->save($other);
            }
            $placement->fill([
                'group' => $group,
                'start_ticks' => $startTicks,
                'way' => 'hand',
                'is_sure' => true,
                'confidence' => 1,
                'drift_ppm' => null,
                'drift_applied' => false,
                'evidence' => $evidence,
                'stray_reason' => null,
                'locked_at' => now(),
                'left_out_at' => null,
            ]);
            $log->save($placement);
            $more = $others->isEmpty() ? '' : sprintf(', and %d with it', count($others));
            $log->finish($clip->production, $user, 'Place ' . $clip->title() . ' by hand' . $more);
            Live::tell($clip->production_id, Topic::Lineup);

            return $placement;
        });

        return $placement;
    }

    /**
     * Puts a clip where the next best match would have it, and keeps the place it had as the next best.
     *
     * @throws Problem if there is no other match, it is locked, or it was moved meanwhile
     */
    public function second(Clip $clip, User $user, ?int $wasTicks): Placement
    {
        $placement = DB::transaction(function () use ($clip, $user, $wasTicks): Placement {
            $placement = $this->locked($clip);
            $against = Placement::query()
                ->whereHas(
                    'clip',
                    static fn($other) => $other
                        ->where('ulid', $placement->evidence['second_against'] ?? ($placement->evidence['against'] ?? ''))
                        ->where('shoot_day_id', $clip->shoot_day_id),
                )
                ->first();
            $second = $placement->evidence['second_ticks'] ?? null;
            if ($placement->locked_at !== null) {
                throw Problem::refused('lineup.locked', $clip->title() . ' is locked.', 'Unlock it first.');
            }
            if ($second === null || $against?->start_ticks === null) {
                throw Problem::refused('lineup.second', $clip->title() . ' fits no other place.', 'Place it by hand.');
            }
            if ($wasTicks !== $placement->start_ticks) {
                throw Problem::editedMeanwhile($clip->title(), [
                    ['field' => 'start_ticks', 'yours' => $against->start_ticks + $second, 'theirs' => $placement->start_ticks],
                ]);
            }
            $this->refuseOverlap($clip, $against->start_ticks + $second);
            $placement->evidence =
                ['second_ticks' => $placement->start_ticks - $against->start_ticks, 'tried' => 'second'] + $placement->evidence;
            $placement->start_ticks = $against->start_ticks + $second;
            $placement->is_sure = false;
            $this->keep($placement, $clip, $user, 'Try the second place of ' . $clip->title());

            return $placement;
        });

        return $placement;
    }

    /** Takes a clip out of the line-up, or lets runs place it again; a clip that is out has no place and holds nobody up. */
    public function leaveOut(Clip $clip, User $user, bool $out): Placement
    {
        return DB::transaction(function () use ($clip, $user, $out): Placement {
            ShootDay::query()->lockForUpdate()->findOrFail($clip->shoot_day_id);
            $placement =
                Placement::query()->where('clip_id', $clip->id)->lockForUpdate()->first() ??
                new Placement(['clip_id' => $clip->id, 'shoot_day_id' => $clip->shoot_day_id]);
            if ($out) {
                $placement->fill([
                    'group' => null,
                    'start_ticks' => null,
                    'way' => null,
                    'confidence' => null,
                    'is_sure' => false,
                    'drift_ppm' => null,
                    'evidence' => null,
                    'stray_reason' => 'Taken out of the line-up by ' . $user->name . '.',
                    'locked_at' => null,
                    'left_out_at' => now(),
                ]);
            } else {
                $placement->fill(['left_out_at' => null, 'stray_reason' => 'Back in; the next line-up will look for its place.']);
            }
            $this->keep(
                $placement,
                $clip,
                $user,
                $out ? 'Take ' . $clip->title() . ' out of the line-up' : 'Let ' . $clip->title() . ' into the line-up',
            );

            return $placement;
        });
    }

    /**
     * What a clip takes along into another group.
     *
     * @return \Illuminate\Support\Collection<int, Placement>
     */
    private function together(Placement $placement, int $group): \Illuminate\Support\Collection
    {
        return (int) $placement->group === 0 || $placement->group === $group
            ? new \Illuminate\Support\Collection()
            : Placement::query()
                ->with('clip')
                ->where('shoot_day_id', $placement->shoot_day_id)
                ->where('group', $placement->group)
                ->where('clip_id', '!=', $placement->clip_id)
                ->whereNotNull('start_ticks')
                ->lockForUpdate()
                ->get();
    }

    /** One device records one clip at a time; half a frame is what its own clock may be off. */
    private function refuseOverlap(Clip $clip, int $startTicks, int $group = 0): void
    {
        $half = intdiv(Ticks::PER_SECOND, 50);
        $other = Clip::query()
            ->whereNull('clips.away_at')
            ->join('placements', 'placements.clip_id', '=', 'clips.id')
            ->where('clips.shoot_day_id', $clip->shoot_day_id)
            ->where('clips.device_id', $clip->device_id)
            ->where('clips.id', '!=', $clip->id)
            ->where('placements.group', $group)
            ->where('placements.start_ticks', '<', $startTicks + $clip->duration_ticks - $half)
            ->whereRaw('placements.start_ticks + clips.duration_ticks > ?', [$startTicks + $half])
            ->first(['clips.name', 'clips.label'])
            ?->title();
        if ($other !== null) {
            throw Problem::refused(
                'lineup.overlap',
                sprintf('There it would lie over %s of the same device.', $other),
                'One device records one clip at a time: choose another point, or move that one first.',
            );
        }
    }

    public function lock(Clip $clip, User $user, bool $lock): Placement
    {
        return DB::transaction(function () use ($clip, $user, $lock): Placement {
            $placement = $this->locked($clip);
            $placement->locked_at = $lock ? $placement->locked_at ?? now() : null;
            if ($lock) {
                $placement->is_sure = true; // a person has looked
            }
            $this->keep($placement, $clip, $user, ($lock ? 'Lock ' : 'Unlock ') . $clip->title());

            return $placement;
        });
    }

    private function locked(Clip $clip): Placement
    {
        $placement = Placement::query()->where('clip_id', $clip->id)->lockForUpdate()->first();

        return $placement?->start_ticks !== null
            ? $placement
            : throw Problem::refused('lineup.stray', $clip->title() . ' has no place yet.', 'Line up the day first.');
    }

    private function keep(Placement $placement, Clip $clip, User $user, string $label): void
    {
        $log = new ChangeLog();
        $log->save($placement);
        $log->finish($clip->production, $user, $label);
        Live::tell($clip->production_id, Topic::Lineup, ['clip' => $clip->ulid]);
    }
}
