<?php

declare(strict_types=1);

namespace App\Support;

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
}
