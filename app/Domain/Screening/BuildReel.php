<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Lineup\SlateStart;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Reel;
use App\Models\ReelItem;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\DB;

/**
 * Builds a review reel of a day: one picture of each take in slate order, from its slate on. Marks that people set on
 * clips play no part.
 */
final class BuildReel
{
    /** @throws Problem if no take of the day has a picture */
    public function __invoke(ShootDay $day, User $user, string $name, bool $circledOnly): Reel
    {
        $takes = Take::query()
            ->where('shoot_day_id', $day->id)
            ->when($circledOnly, static fn($query) => $query->where('status', TakeStatus::Circled->value))
            ->orderBy('sort_key')
            ->with([
                'parts' => static fn($query) => $query->orderBy('in_ticks'),
                'clips' => static fn($query) => $query->where('kind', 'picture')->whereNotNull('proxied_at')->with('device'),
            ])
            ->get();
        $chosen = [];
        foreach ($takes as $take) {
            // On a day without slates a device has many clips of the one take, and all of the first camera's are shown.
            $parts = $take->parts->groupBy('clip_id');
            $lane = $take->clips->min(static fn(Clip $clip): int => $clip->device->lane ?? 99);
            foreach (
                $take->clips->filter(static fn(Clip $clip): bool => ($clip->device->lane ?? 99) === $lane)->sortBy('start_ticks')
                as $clip
            ) {
                foreach ($parts[$clip->id] ?? [] as $part) {
                    // Of a picture over several takes, the stretch that belongs to this one.
                    $chosen[] = [
                        $take,
                        $clip,
                        $part->in_ticks ?? ($take->is_tail_slate ? 0 : self::slateStart($clip)),
                        $part->out_ticks ?? $clip->duration_ticks,
                    ];
                }
            }
        }
        if ($chosen === []) {
            throw Problem::refused(
                'reel.empty',
                $circledOnly ? 'No circled take of this day has a picture.' : 'No take of this day has a picture.',
                $circledOnly ? 'Circle some takes, or build the reel of all takes.' : 'Offload the cards and read the slates first.',
            );
        }
        $reel = DB::transaction(static function () use ($day, $user, $name, $circledOnly, $chosen): Reel {
            $log = new ChangeLog();
            $reel = new Reel([
                'production_id' => $day->production_id,
                'shoot_day_id' => $day->id,
                'user_id' => $user->id,
                'name' => $name,
                'circled_only' => $circledOnly,
            ]);
            $log->save($reel);
            foreach ($chosen as $position => [$take, $clip, $in, $out]) {
                $log->save(
                    new ReelItem([
                        'reel_id' => $reel->id,
                        'position' => $position,
                        'take_id' => $take->id,
                        'clip_id' => $clip->id,
                        'in_ticks' => $in,
                        'out_ticks' => $out,
                    ]),
                );
            }
            $log->finish($day->production, $user, "Build the reel $name");

            return $reel;
        });
        Live::tell($day->production_id, Topic::Reels);

        return $reel;
    }

    /** Where a person has it begin, else the frame a second before the clap; the clip's first frame when no clap is heard. */
    private static function slateStart(Clip $clip): int
    {
        return Ticks::ofFrames($clip->head_frames ?? (SlateStart::heard($clip) ?? 0), $clip->rate() ?? $clip->production->rate());
    }
}
