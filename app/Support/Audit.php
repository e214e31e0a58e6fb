<?php

declare(strict_types=1);

namespace App\Support;

use App\Models\Production;
use App\Models\User;
use Illuminate\Support\Facades\DB;

/**
 * What must be known later: who came in, who was refused, whose role changed, what was released or handed on. Rows are only
 * ever added; the database itself refuses to change or remove one.
 */
final class Audit
{
    /**
     * @param  'signed_in'|'signed_out'|'sign_in_refused'|'password_changed'|'password_reset'|'second_factor_on'
     *     |'second_factor_off'|'session_ended'
     *     |'person_added'|'role_changed'|'membership_ended'|'setting_changed'
     *     |'link.made'|'link.ended'|'token.made'|'token.revoked'|'words.service_removed'|'words.service_set'|'hook.made'|'hook.removed'
     *     |'card.released'|'handoff.delivered'|'handoff.answered'  $what
     * @param  array<string, scalar|null>  $facts
     * @param  string|null  $who  the name that was given, where nobody of that name is known
     */
    public static function write(
        string $what,
        ?int $userId,
        ?int $productionId,
        array $facts = [],
        ?string $address = null,
        ?string $who = null,
    ): void {
        DB::table('audit')->insert([
            'what' => $what,
            'user_id' => $userId,
            'who' => mb_substr(mb_scrub($who ?? (string) User::query()->whereKey($userId)->value('email')), 0, 190),
            'production_id' => $productionId,
            'address' => $address,
            'facts' => json_encode((object) $facts, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE),
            'created_at' => now(),
        ]);
    }

    /**
     * What was written down of a production and of its people's sign-ins, newest first.
     *
     * @return list<array{at: string, what: string, who: string, address: string|null, facts: array<string, scalar|null>}>
     */
    public static function of(Production $production, int $limit): array
    {
        $people = $production->users()->pluck('users.id');

        return DB::table('audit')
            ->where(
                static fn($query) => $query
                    ->where('production_id', $production->id)
                    ->orWhere(static fn($own) => $own->whereNull('production_id')->whereIn('user_id', $people)),
            )
            ->orderByDesc('id')
            ->limit($limit)
            ->get()
            ->map(
                static fn(object $row): array => [
                    'at' => date('c', (int) strtotime($row->created_at . ' UTC')),
                    'what' => $row->what,
                    'who' => $row->who,
                    'address' => $row->address,
                    'facts' => json_decode($row->facts, true),
                ],
            )
            ->all();
    }
}
