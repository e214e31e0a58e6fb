<?php

declare(strict_types=1);

namespace App\Domain\Log;

use Illuminate\Support\Facades\DB;

/** The names of entries that came in, of each person, so that one that is sent again counts once. */
final class KeptEntries
{
    public static function has(int $user, string $entry): bool
    {
        return DB::table('kept_entries')->where('user_id', $user)->where('entry', $entry)->exists();
    }

    public static function keep(int $user, string $entry): void
    {
        DB::table('kept_entries')->insertOrIgnore(['user_id' => $user, 'entry' => $entry]);
    }
}
