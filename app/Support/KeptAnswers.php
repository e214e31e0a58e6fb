<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** What was answered to changes within the last hour, by person and by the name that the page gave the change. */
final class KeptAnswers
{
    public const HOURS = 1;

    /** Bytes of an answer that is kept. */
    private const LONGEST = 1 << 20;

    public static function find(int $user, string $name): ?JsonResponse
    {
        $known = DB::table('kept_answers')
            ->where('user_id', $user)
            ->where('name', $name)
            ->first(['status', 'body']);

        return $known === null ? null : JsonResponse::fromJsonString($known->body, $known->status);
    }

    public static function keep(int $user, string $name, JsonResponse $answer): void
    {
        $body = (string) $answer->getContent();
        if (strlen($body) <= self::LONGEST) {
            DB::table('kept_answers')->insertOrIgnore([
                'user_id' => $user,
                'name' => $name,
                'status' => $answer->getStatusCode(),
                'body' => $body,
                'created_at' => now(),
            ]);
        }
    }
}
