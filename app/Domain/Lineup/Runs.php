<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\LineupRun;
use App\Models\Placement;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** The runs of line-up over a day: each is kept with the places it left, two can be compared, and one can be gone back to. */
final class Runs
{
    /** What makes a place, as it is kept with a run. */
    private const KEPT = ['group', 'start_ticks', 'way', 'confidence', 'is_sure', 'drift_ppm', 'evidence', 'stray_reason'];

    /** @param  list<string>  $ways */
    public function begin(ShootDay $day, ?User $user, Scope $scope, array $ways): LineupRun
    {
        return DB::transaction(static function () use ($day, $user, $scope, $ways): LineupRun {
            ShootDay::query()->lockForUpdate()->findOrFail($day->id);

            return LineupRun::query()->create([
                'production_id' => $day->production_id,
                'shoot_day_id' => $day->id,
                'user_id' => $user?->id,
                'number' => 1 + (int) $day->lineupRuns()->max('number'),
                'scope' => $scope->words($day),
                'ways' => implode(',', $ways),
            ]);
        });
    }

    /** @param  array{placed: int, sure: int, strays: int}  $count */
    public function end(LineupRun $run, array $count): void
    {
        $places = Placement::query()->where('shoot_day_id', $run->shoot_day_id)->get()->mapWithKeys(
            static fn(Placement $place): array => [
                $place->clip_id => $place->only(self::KEPT) + ['locked' => $place->locked_at !== null],
            ],
        );
        $run->update($count + ['places' => $places->all(), 'ended_at' => now()]);
    }

    /** @return list<array<string, mixed>> the latest first */
    public function of(ShootDay $day): array
    {
        return $day
            ->lineupRuns()
            ->with('user')
            ->whereNotNull('ended_at')
            ->orderByDesc('number')
            ->limit(200)
            ->get(['id', 'ulid', 'user_id', 'number', 'scope', 'ways', 'placed', 'sure', 'strays', 'ended_at'])
            ->map(
                static fn(LineupRun $run): array => [
                    'ulid' => $run->ulid,
                    'number' => $run->number,
                    'scope' => $run->scope,
                    'ways' => explode(',', $run->ways),
                    'placed' => $run->placed,
                    'sure' => $run->sure,
                    'strays' => $run->strays,
                    'by' => $run->user?->name,
                    'at' => $run->ended_at?->toIso8601String(),
                ],
            )
            ->all();
    }

    /**
     * What differs between a run and another one, or what stands now.
     *
     * @return list<array{clip: string, name: string, device: string|null, before: array<string, mixed>|null, after: array<string,
     *     mixed>|null, moved_ticks: int|null}>
     */
    public function compare(LineupRun $run, ?LineupRun $other): array
    {
        $before = $run->places ?? [];
        $after =
            $other === null
                ? Placement::query()
                    ->where('shoot_day_id', $run->shoot_day_id)
                    ->get()
                    ->mapWithKeys(
                        static fn(Placement $place): array => [
                            $place->clip_id => $place->only(self::KEPT) + ['locked' => $place->locked_at !== null],
                        ],
                    )
                    ->all()
                : $other->places ?? [];
        $told = static fn(?array $place): ?array => $place === null
            ? null
            : [
                'start_ticks' => $place['start_ticks'],
                'way' => $place['way'],
                'sure' => (bool) $place['is_sure'],
                'locked' => (bool) $place['locked'],
                'reason' => $place['stray_reason'],
            ];
        $rows = [];
        foreach (
            Clip::query()->with('device')->whereKey(array_keys($before + $after))->orderBy('start_ticks')->orderBy('id')->get()
            as $clip
        ) {
            [$was, $is] = [$told($before[$clip->id] ?? null), $told($after[$clip->id] ?? null)];
            if ($was != $is) {
                $rows[] = [
                    'clip' => $clip->ulid,
                    'name' => $clip->title(),
                    'device' => $clip->device?->letter,
                    'before' => $was,
                    'after' => $is,
                    'moved_ticks' => isset($was['start_ticks'], $is['start_ticks']) ? $is['start_ticks'] - $was['start_ticks'] : null,
                ];
            }
        }

        return $rows;
    }

    /**
     * Puts every place back as a run left it, one undoable step. What a person has locked or taken out since stays; what
     * they only nudged goes back too.
     *
     * @return array{moved: int, kept: int} clips that went back, and those a person's decision holds
     */
    public function goBack(LineupRun $run, User $user): array
    {
        if ($run->places === null) {
            throw Problem::refused('lineup.run', sprintf('Run %d did not come to its end.', $run->number), 'Choose one that did.');
        }
        $count = DB::transaction(static function () use ($run, $user): array {
            $log = new ChangeLog();
            $count = ['moved' => 0, 'kept' => 0];
            $back = [];
            /** @var \Illuminate\Database\Eloquent\Collection<int, Placement> $places */
            $places = Placement::query()->where('shoot_day_id', $run->shoot_day_id)->lockForUpdate()->get();
            foreach ($places as $place) {
                $was = $run->places[$place->clip_id] ?? null;
                if ($was === null) {
                    continue;
                }
                $place->fill(array_intersect_key($was, array_flip(self::KEPT)));
                if (!$place->isDirty(['group', 'start_ticks', 'way', 'is_sure', 'stray_reason'])) {
                    continue;
                }
                if ($place->locked_at !== null || $place->left_out_at !== null) {
                    $count['kept']++;

                    continue;
                }
                $back[] = $place;
                $count['moved']++;
            }
            $log->saveAll($back);
            $log->finish($run->day->production, $user, sprintf('Go back to run %d of line-up', $run->number));

            return $count;
        });
        Live::tell($run->production_id, Topic::Lineup);

        return $count;
    }
}
