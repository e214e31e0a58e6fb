<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\Redis;

/** Events in Redis, where several machines tell and hear of each other; as many of each production as a page catches up with. */
final class RedisBus implements LiveBus
{
    private const PAGE = 200;

    /** Events of a production that are kept; a page that was away for longer hears of the newest of them only. */
    private const KEPT = 5_000;

    /** Seconds after its last event that a production's are kept. */
    private const FOR = 86_400;

    /**
     * Number and event are written in one go, so that numbers come into sight in their order. The first number is the clock's, in
     * milliseconds: a server that lost what it held goes on above what pages have seen.
     */
    private const PUBLISH = <<<'LUA'
    local id = redis.call('INCR', KEYS[1])
    if id == 1 then
        id = tonumber(ARGV[2])
        redis.call('SET', KEYS[1], ARGV[2])
    end
    redis.call('ZADD', KEYS[2], id, string.format('%.0f ', id) .. ARGV[1])
    redis.call('ZREMRANGEBYRANK', KEYS[2], 0, -1 - tonumber(ARGV[3]))
    redis.call('EXPIRE', KEYS[2], ARGV[4])
    return id
    LUA;

    public function publish(int $productionId, Topic $topic, array $facts, ?string $origin): void
    {
        $event = json_encode(['topic' => $topic->value, 'facts' => (object) $facts, 'origin' => $origin], JSON_THROW_ON_ERROR);
        [$count, $list] = self::keys($productionId);
        Redis::connection()->command('eval', [
            self::PUBLISH,
            2,
            $count,
            $list,
            $event,
            (int) (1000 * microtime(true)),
            self::KEPT,
            self::FOR,
        ]);
    }

    public function last(int $productionId): int
    {
        return (int) Redis::connection()->command('get', [self::keys($productionId)[0]]);
    }

    public function since(int $productionId, int $after): array
    {
        $found = Redis::connection()->command('zrangebyscore', [
            self::keys($productionId)[1],
            "($after",
            '+inf',
            ['limit' => ['offset' => 0, 'count' => self::PAGE]],
        ]);

        return array_map(static function (string $one): array {
            [$id, $event] = explode(' ', $one, 2);

            return ['id' => (int) $id] + json_decode($event, true, flags: JSON_THROW_ON_ERROR);
        }, array_values((array) $found));
    }

    /** @return array{string, string} of the count and of the list; in one slot, where Redis is several servers */
    private static function keys(int $productionId): array
    {
        return ["live.{{$productionId}}.last", "live.{{$productionId}}.events"];
    }
}
