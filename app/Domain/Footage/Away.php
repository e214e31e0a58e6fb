<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use App\Models\Production;
use Illuminate\Database\Query\Builder;

/**
 * Clips that were taken away: rows stay, so that whatever points at them does; lists of footage go without them. Most productions
 * have none, and their lists need not look at each clip for it.
 */
final class Away
{
    public static function some(Production $production): bool
    {
        return Clip::query()->where('production_id', $production->id)->whereNotNull('away_at')->exists();
    }

    /** A list of the table `clips` without them. */
    public static function hide(Builder $clips, Production $production): Builder
    {
        return self::some($production) ? $clips->whereNull('clips.away_at') : $clips;
    }
}
