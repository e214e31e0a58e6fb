<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Lineup\Windows;
use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Models\Clip;
use App\Models\Take;
use Illuminate\Support\Collection;

/**
 * What can be watched of each piece of a reel: its own picture, and every other that ran with it by the line-up, from where to
 * where. A picture of the take that nobody placed can be watched as a whole.
 */
final class ReelShow
{
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
            ->load(['screeningNotes.user', 'screeningNotes.clip']);
        $days = array_unique(array_map(static fn(PicturePiece $piece): int => $piece->clip->shoot_day_id, $playlist->pictures));
        $pictures = Clip::query()
            ->where('production_id', $playlist->stored->production_id)
            ->whereIn('shoot_day_id', $days)
            ->where('kind', 'picture')
            ->whereNotNull('proxied_at')
            ->with(['placement', 'device.look', 'look', 'parts'])
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
     * @param  array{clip: Clip, in: int, out: int, at: int}  $x
     * @param  array{clip: Clip, in: int, out: int, at: int}  $y
     */
    private static function byLane(array $x, array $y): int
    {
        return [$x['clip']->device->lane ?? 99, $x['clip']->start_ticks] <=> [$y['clip']->device->lane ?? 99, $y['clip']->start_ticks];
    }
}
