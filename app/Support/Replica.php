<?php

declare(strict_types=1);

namespace App\Support;

use App\Models\Production;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;

/** A database server that follows the desk's own and is only read; there is none unless the settings name one. */
final class Replica
{
    /**
     * Runs what may read what is a second old, on the replica where it answers.
     *
     * @template T
     *
     * @param  callable(Production|null): T  $work  with the production as it is read there
     * @return T
     */
    public static function read(?Production $production, callable $work): mixed
    {
        $usual = DB::getDefaultConnection();
        if ((string) config('database.connections.replica.host') === '' || !self::answers()) {
            return $work($production);
        }
        DB::setDefaultConnection('replica');
        try {
            return $work($production === null ? null : Production::query()->find($production->id) ?? $production);
        } finally {
            DB::setDefaultConnection($usual);
        }
    }

    private static function answers(): bool
    {
        try {
            DB::connection('replica')->getPdo();

            return true;
        } catch (\PDOException $gone) {
            Log::warning('The replica does not answer: ' . $gone->getMessage());

            return false;
        }
    }
}
