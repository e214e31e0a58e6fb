<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Encryption\Encrypter;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/**
 * What was answered to changes within the last hour, by person and by the name that the page gave the change. Some answers are shown
 * once, such as a token: they are kept so that only who knows that name can read them, and neither the database nor a backup has it.
 */
final class KeptAnswers
{
    public const HOURS = 1;

    /** Bytes of an answer that is kept. */
    private const LONGEST = 1 << 20;

    public static function find(int $user, string $name): ?JsonResponse
    {
        $known = DB::table('kept_answers')
            ->where('user_id', $user)
            ->where('name', self::hash($name))
            ->first(['status', 'body']);

        return $known === null ? null : JsonResponse::fromJsonString(self::lock($name)->decryptString($known->body), $known->status);
    }

    public static function keep(int $user, string $name, JsonResponse $answer): void
    {
        $body = (string) $answer->getContent();
        if (strlen($body) <= self::LONGEST) {
            DB::table('kept_answers')->insertOrIgnore([
                'user_id' => $user,
                'name' => self::hash($name),
                'status' => $answer->getStatusCode(),
                'body' => self::lock($name)->encryptString($body),
                'created_at' => now(),
            ]);
        }
    }

    private static function hash(string $name): string
    {
        return substr(hash('sha256', "name $name"), 0, 40);
    }

    private static function lock(string $name): Encrypter
    {
        return new Encrypter(hash('sha256', "lock $name", true), 'aes-256-cbc');
    }
}
