<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Placement;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** The drift that line-up measured, taken out of the sound under a picture or left in it; a person's choice, undoable. */
final class Drift
{
    /** Parts per million by which the sound under a picture is stretched; 0 where nobody wants it. */
    public static function between(Clip $picture, Clip $sound): float
    {
        return $picture->placement?->drift_applied === true
            ? (float) $picture->placement->drift_ppm - (float) $sound->placement?->drift_ppm
            : 0.0;
    }

    /**
     * @param  bool  $isWhole  for every picture of the clip's device on its day whose drift is known
     * @return int how many clips it changed
     *
     * @throws Problem if no drift was measured for the clip
     */
    public function apply(Clip $clip, User $user, bool $isApplied, bool $isWhole): int
    {
        if ($clip->placement?->drift_ppm === null || !$clip->isPicture()) {
            throw Problem::refused(
                'lineup.drift',
                'No drift is known for ' . $clip->title() . '.',
                'Half a minute of sound that both heard tells it.',
            );
        }
        $changed = DB::transaction(static function () use ($clip, $user, $isApplied, $isWhole): array {
            $places = Placement::query()
                ->with('clip')
                ->whereNotNull('drift_ppm')
                ->where('drift_applied', !$isApplied)
                ->whereHas(
                    'clip',
                    static fn($some) => $isWhole
                        ? $some->where('shoot_day_id', $clip->shoot_day_id)->where('device_id', $clip->device_id)->where('kind', 'picture')
                        : $some->whereKey($clip->id),
                )
                ->lockForUpdate()
                ->get();
            $log = new ChangeLog();
            foreach ($places as $place) {
                $place->drift_applied = $isApplied;
                $log->save($place);
            }
            $what = $isWhole ? 'camera ' . $clip->device?->letter : $clip->title();
            $log->finish(
                $clip->production,
                $user,
                $isApplied ? "Take the drift of $what out of its sound" : "Leave the drift of $what in its sound",
            );

            return $places->pluck('clip_id')->all();
        });
        Live::tell($clip->production_id, Topic::Lineup, ['clip' => $clip->ulid]);

        return count($changed);
    }
}
