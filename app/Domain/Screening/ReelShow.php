<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Lineup\Windows;
use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Models\Clip;
use App\Models\Take;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * What can be watched of each piece of a reel: its own picture, and every other that ran with it by the line-up, from where to
 * where. A picture of the take that nobody placed can be watched as a whole.
 */
final class ReelShow
{
    /** Pieces that one question is about. */
    private const ASKED = 100;

    /**
     * @return list<array{piece: PicturePiece, angles: list<array{clip: Clip, in: int, out: int, at: int}>}> `at` is how much later than
     *     the piece the other picture begins, ticks
     */
    public function of(Playlist $playlist): array
    {
        $takes = new Collection(array_filter(array_map(static fn(PicturePiece $piece): ?Take => $piece->take, $playlist->pictures)));
        Take::query()
            ->getModel()
            ->newCollection($takes->unique('id')->all())
            ->load([
                'screeningNotes.user',
                'screeningNotes.clip',
                'ratings.user',
                'saidFacts' => static fn($query) => $query->where('field', 'notes'),
            ]);
        $pictures = Clip::query()
            ->where('production_id', $playlist->stored->production_id)
            ->whereIn('id', self::near($playlist, $takes->pluck('id')->all()))
            ->where('kind', 'picture')
            ->whereNotNull('proxied_at')
            ->whereNull('away_at')
            ->with(['placement', 'device.look', 'look', 'parts', 'markers'])
            ->get();
        $windows = $pictures->groupBy('shoot_day_id')->map(static fn(Collection $day): Windows => new Windows($day));
        $byTake = [];
        foreach ($pictures as $clip) {
            foreach ($clip->parts as $part) {
                $byTake[$part->take_id][] = $clip;
            }
        }
        $shown = [];
        foreach ($playlist->pictures as $piece) {
            $angles = [['clip' => $piece->clip, 'in' => $piece->inTicks, 'out' => $piece->inTicks + $piece->durationTicks, 'at' => 0]];
            $known = [$piece->clip->id => true];
            foreach (($windows[$piece->clip->shoot_day_id] ?? null)?->partners($piece->clip, 'picture') ?? [] as $other) {
                // The line-up has both on one clock, so the same moment is a sum.
                $offset = $piece->clip->placement->start_ticks - $other->placement->start_ticks;
                $in = max(0, $piece->inTicks + $offset);
                $out = min((int) $other->duration_ticks, $piece->inTicks + $piece->durationTicks + $offset);
                if ($in < $out) {
                    $angles[] = ['clip' => $other, 'in' => $in, 'out' => $out, 'at' => $in - $piece->inTicks - $offset];
                    $known[$other->id] = true;
                }
            }
            foreach ($byTake[$piece->take?->id] ?? [] as $other) {
                if (!isset($known[$other->id]) && $other->placement?->start_ticks === null) {
                    $angles[] = ['clip' => $other, 'in' => 0, 'out' => (int) $other->duration_ticks, 'at' => 0];
                    $known[$other->id] = true;
                }
            }
            usort($angles, self::byLane(...));
            $shown[] = ['piece' => $piece, 'angles' => $angles];
        }

        return $shown;
    }

    /**
     * The pictures that may be an angle of any piece: those that the line-up has beside it, and those of its take. Asked of the database,
     * since a reel of thirty takes may be of thirty days.
     *
     * @param  list<int>  $takes
     * @return list<int>
     */
    private static function near(Playlist $playlist, array $takes): array
    {
        $near = DB::table('take_parts')->whereIntegerInRaw('take_id', $takes)->pluck('clip_id')->all();
        foreach (array_chunk($playlist->pictures, self::ASKED) as $pieces) {
            $beside = DB::table('placements')
                ->join('clips', 'clips.id', '=', 'placements.clip_id')
                ->where('clips.kind', 'picture')
                ->where(static function (Builder $any) use ($pieces): void {
                    foreach ($pieces as $piece) {
                        $place = $piece->clip->placement;
                        $any->orWhere('clips.id', $piece->clip->id);
                        if ($place?->start_ticks === null) {
                            continue;
                        }
                        $from = $place->start_ticks + $piece->inTicks;
                        $any->orWhere(
                            static fn(Builder $one) => $one
                                ->where('placements.shoot_day_id', $place->shoot_day_id)
                                ->where('placements.group', $place->group)
                                ->where('placements.start_ticks', '<', $from + $piece->durationTicks)
                                ->whereRaw('placements.start_ticks + clips.duration_ticks > ?', [$from]),
                        );
                    }
                })
                ->pluck('clips.id')
                ->all();
            array_push($near, ...$beside, ...array_map(static fn(PicturePiece $piece): int => $piece->clip->id, $pieces));
        }

        return array_values(array_unique(array_map(intval(...), $near)));
    }

    /**
     * @param  array{clip: Clip, in: int, out: int, at: int}  $x
     * @param  array{clip: Clip, in: int, out: int, at: int}  $y
     */
    private static function byLane(array $x, array $y): int
    {
        return [$x['clip']->device->lane ?? 99, $x['clip']->start_ticks] <=> [$y['clip']->device->lane ?? 99, $y['clip']->start_ticks];
    }
}
