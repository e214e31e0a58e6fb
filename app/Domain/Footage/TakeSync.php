<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\DB;

/** Whether takes have their sound: a question to the line-up about their parts, not a mark on a file. */
final class TakeSync
{
    /** A picture and a sound that met for less than this do not make a take synced. */
    private const LEAST_TICKS = Ticks::PER_SECOND;

    /**
     * Of some takes those of which a placed picture and a placed recording ran at the same time, on one clock.
     *
     * @param  list<int>  $takes  ids
     * @return list<int> ids
     */
    public function synced(array $takes): array
    {
        $windows = [];
        foreach (array_chunk($takes, 2000) as $some) {
            $rows = DB::table('take_parts')
                ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
                ->join('placements', 'placements.clip_id', '=', 'clips.id')
                ->whereIn('take_parts.take_id', $some)
                ->whereNotNull('placements.start_ticks')
                ->whereIn('clips.kind', ['picture', 'sound'])
                ->get([
                    'take_parts.take_id',
                    'clips.kind',
                    'placements.group',
                    DB::raw('placements.start_ticks + COALESCE(take_parts.in_ticks, 0) AS start'),
                    DB::raw('placements.start_ticks + COALESCE(take_parts.out_ticks, clips.duration_ticks) AS end'),
                ]);
            foreach ($rows as $row) {
                $windows[$row->take_id][$row->kind][] = [(int) $row->group, (int) $row->start, (int) $row->end];
            }
        }

        return array_values(
            array_filter(
                $takes,
                static fn(int $take): bool => self::meet($windows[$take]['picture'] ?? [], $windows[$take]['sound'] ?? []),
            ),
        );
    }

    /**
     * @param  list<array{int, int, int}>  $pictures  group, start and end in ticks
     * @param  list<array{int, int, int}>  $sounds
     */
    public static function meet(array $pictures, array $sounds): bool
    {
        foreach ($pictures as [$group, $start, $end]) {
            foreach ($sounds as [$other, $from, $to]) {
                $together = $group === $other ? min($to, $end) - max($from, $start) : 0;
                if ($together > 0 && $together >= min(self::LEAST_TICKS, $end - $start)) {
                    return true;
                }
            }
        }

        return false;
    }
}
