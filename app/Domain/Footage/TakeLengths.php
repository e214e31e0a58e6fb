<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** How long takes are, as a query. */
final class TakeLengths
{
    /** The longest picture of each take in ticks: columns `take_id` and `longest`. */
    public static function pictures(): Builder
    {
        return DB::table('take_parts')
            ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
            ->where('clips.kind', 'picture')
            ->groupBy('take_parts.take_id')
            ->selectRaw('take_parts.take_id, MAX(' . self::TICKS . ') AS longest');
    }

    /** How much of a clip a part takes; a part that is the whole clip ends where that does. */
    public const TICKS = 'COALESCE(take_parts.out_ticks, clips.duration_ticks) - COALESCE(take_parts.in_ticks, 0)';
}
