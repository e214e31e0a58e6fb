<?php

declare(strict_types=1);

namespace App\Domain\People;

use App\Models\User;
use Illuminate\Support\Facades\DB;

/** Where a person is signed in. A session is named by a hash: its own id would be the key to it. */
final class Sessions
{
    /** @return list<array{id: string, address: string|null, browser: string, last_at: string, is_this: bool}> the newest first */
    public function of(User $user, ?string $current): array
    {
        return DB::table('sessions')
            ->where('user_id', $user->id)
            ->orderByDesc('last_activity')
            ->limit(50)
            ->get(['id', 'ip_address', 'user_agent', 'last_activity'])
            ->map(
                static fn(object $row): array => [
                    'id' => self::name($row->id),
                    'address' => $row->ip_address,
                    'browser' => self::browser((string) $row->user_agent),
                    'last_at' => date('c', (int) $row->last_activity),
                    'is_this' => $row->id === $current,
                ],
            )
            ->all();
    }

    public function count(User $user): int
    {
        return DB::table('sessions')->where('user_id', $user->id)->count();
    }

    public function end(User $user, string $name): bool
    {
        foreach (DB::table('sessions')->where('user_id', $user->id)->pluck('id') as $id) {
            if (hash_equals(self::name($id), $name)) {
                return DB::table('sessions')->where('id', $id)->delete() > 0;
            }
        }

        return false;
    }

    /** @param  string|null  $except  the id of the one that stays */
    public function endAll(User $user, ?string $except = null): int
    {
        // What a browser remembers of an ended sign-in must not open it again.
        $user->forceFill(['remember_token' => null])->save();

        return DB::table('sessions')
            ->where('user_id', $user->id)
            ->when($except !== null, static fn($query) => $query->where('id', '!=', $except))
            ->delete();
    }

    private static function name(string $id): string
    {
        return hash('xxh128', 'session.' . $id);
    }

    private static function browser(string $agent): string
    {
        $system = match (true) {
            str_contains($agent, 'Windows') => 'Windows',
            str_contains($agent, 'Android') => 'Android',
            str_contains($agent, 'iPhone'), str_contains($agent, 'iPad') => 'iOS',
            str_contains($agent, 'Mac OS') => 'macOS',
            str_contains($agent, 'Linux') => 'Linux',
            default => 'another system',
        };
        $program = match (true) {
            str_contains($agent, 'Firefox/') => 'Firefox',
            str_contains($agent, 'Edg/') => 'Edge',
            str_contains($agent, 'Chrom') => 'Chromium',
            str_contains($agent, 'Safari/') => 'Safari',
            default => 'a browser',
        };

        return "$program on $system";
    }
}
