<?php

declare(strict_types=1);

namespace App\Domain\Productions;

use App\Models\Production;
use App\Models\User;
use Illuminate\Support\Facades\DB;

/** Who has a page of a production open: each page's live connection says so anew while it lasts. */
final class Presence
{
    /** A connection ends and comes again within this time, seconds; who is not seen in it has gone. */
    public const SECONDS = 75;

    public static function seen(Production $production, User $user): void
    {
        DB::table('presences')->upsert(
            ['production_id' => $production->id, 'user_id' => $user->id, 'seen_at' => now()],
            ['production_id', 'user_id'],
            ['seen_at'],
        );
    }

    /** @return list<User> by name */
    public static function here(Production $production): array
    {
        return User::query()
            ->whereIn(
                'id',
                DB::table('presences')
                    ->where('production_id', $production->id)
                    ->whereBetween('seen_at', [now()->subSeconds(self::SECONDS), now()->addSeconds(self::SECONDS)])
                    ->select('user_id'),
            )
            ->orderBy('name')
            ->get()
            ->all();
    }
}
