<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\ApiToken;
use App\Models\Production;
use App\Models\User;
use App\Support\Audit;
use Illuminate\Support\Str;

/** Tokens with which programs of others read one production. A token is shown once and kept as its hash. */
final class ReadTokens
{
    private const LENGTH = 48;

    /** @return array{ApiToken, string} and the token itself */
    public static function make(Production $production, User $user, string $name): array
    {
        $secret = Str::random(self::LENGTH);
        $token = ApiToken::query()->create([
            'production_id' => $production->id,
            'user_id' => $user->id,
            'name' => $name,
            'token_hash' => hash('sha256', $secret),
        ]);
        Audit::write('token.made', $user->id, $production->id, ['name' => $name]);

        return [$token, $secret];
    }

    public static function revoke(ApiToken $token, User $user): void
    {
        $token->update(['revoked_at' => now()]);
        Audit::write('token.revoked', $user->id, $token->production_id, ['name' => $token->name]);
    }

    /** The production that a token opens; null for one that is not known, or was revoked. */
    public static function production(string $secret): ?Production
    {
        $token =
            strlen($secret) === self::LENGTH
                ? ApiToken::query()->where('token_hash', hash('sha256', $secret))->whereNull('revoked_at')->first()
                : null;
        if ($token !== null && ($token->used_at === null || $token->used_at->lt(now()->subMinute()))) {
            $token->update(['used_at' => now()]);
        }

        return $token?->production;
    }
}
