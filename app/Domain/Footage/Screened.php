<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** What people said of takes while they watched them, in one line for each take: stars first, then notes, each with who said it. */
final class Screened
{
    /**
     * @param  list<int>|Builder  $takes  their ids, or a question for them
     * @return array<int, string> by take; only those of which something was said
     */
    public static function lines(array|Builder $takes): array
    {
        $lines = [];
        foreach (self::asked('take_ratings', 'stars', $takes) as $rating) {
            $lines[$rating->take_id][] = "$rating->stars of 5 ($rating->by)";
        }
        foreach (self::asked('screening_notes', 'text', $takes) as $note) {
            $lines[$note->take_id][] = "$note->text ($note->by)";
        }

        return array_map(static fn(array $said): string => implode(' · ', $said), $lines);
    }

    /**
     * @param  'take_ratings'|'screening_notes'  $table
     * @param  list<int>|Builder  $takes
     * @return iterable<object>
     */
    private static function asked(string $table, string $what, array|Builder $takes): iterable
    {
        $rows = DB::table($table)
            ->leftJoin('users', 'users.id', '=', "$table.user_id")
            ->orderBy("$table.id");
        is_array($takes) ? $rows->whereIntegerInRaw("$table.take_id", $takes) : $rows->whereIn("$table.take_id", $takes);

        return $rows->selectRaw("$table.take_id, $table.$what, COALESCE(users.name, 'somebody') AS `by`")->get();
    }
}
