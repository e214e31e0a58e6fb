<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Predis\PredisException as RedisException;

/** Tells every open page of a production that something changed; the pages ask for what they show again. */
final class Live
{
    /** The page that is being answered, so that it need not fetch what it changed itself; null in workers. */
    public static ?string $origin = null;

    /**
     * After the transaction it is told in, if there is one: nobody may ask for what is not there yet.
     *
     * @param  array<string, mixed>  $facts
     */
    public static function tell(int $productionId, Topic $topic, array $facts = []): void
    {
        $origin = self::$origin;
        DB::afterCommit(static function () use ($productionId, $topic, $facts, $origin): void {
            try {
                app(LiveBus::class)->publish($productionId, $topic, $facts, $origin);
            } catch (RedisException $full) {
                // What was done is done; pages see it when they ask again.
                Log::error('Nobody could be told of a change: ' . $full->getMessage(), ['topic' => $topic->value]);
            }
        });
    }
}
