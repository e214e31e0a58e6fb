<?php

declare(strict_types=1);

namespace Tests\App\Machines;

use App\Domain\Tasks\StartTask;
use App\Models\Task;
use App\Support\Live;
use App\Support\LiveBus;
use App\Support\RedisBus;
use App\Support\Topic;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Redis;
use Tests\App\Support\RealServer;
use Tests\App\TestCase;

/** News, queue and cache on a Redis of its own, as several machines share one. */
final class RedisTest extends TestCase
{
    private static ?RealServer $server = null;

    public static function tearDownAfterClass(): void
    {
        self::$server?->end();
        self::$server = null;
        parent::tearDownAfterClass();
    }

    protected function setUp(): void
    {
        parent::setUp();
        self::$server ??= RealServer::redis();
        config([
            'database.redis.default.port' => self::$server->port,
            'database.redis.cache.port' => self::$server->port,
            'queue.default' => 'redis',
            'queue.connections.redis.block_for' => null,
            'cache.default' => 'redis',
        ]);
        $this->app->bind(LiveBus::class, RedisBus::class);
        Redis::connection()->command('flushall');
    }

    public function test_pages_hear_what_changed_since_in_its_order_and_nothing_of_other_productions(): void
    {
        $start = $this->as()->getJson($this->at('changes'))->assertOk()->json('last');
        Live::tell($this->production->id + 1, Topic::Takes, ['secret' => 'x']);
        foreach ([1, 2, 3] as $take) {
            Live::tell($this->production->id, Topic::Takes, ['take' => "$take é"]);
        }
        $answer = $this->getJson($this->at("changes?after=$start"))->assertJsonCount(3, 'events');
        self::assertSame(['1 é', '2 é', '3 é'], array_column(array_column($answer->json('events'), 'facts'), 'take'));
        $ids = array_column($answer->json('events'), 'id');
        self::assertSame([$ids[0], $ids[0] + 1, $ids[0] + 2], $ids);
        $this->getJson($this->at('changes?after=' . $answer->json('last')))->assertJsonCount(0, 'events');
    }

    public function test_a_server_that_lost_what_it_held_goes_on_above_what_pages_have_seen(): void
    {
        Live::tell($this->production->id, Topic::Takes);
        $seen = app(LiveBus::class)->last($this->production->id);
        Redis::connection()->command('flushall');
        // The clock goes on meanwhile.
        while ((int) (1000 * microtime(true)) <= $seen) {
            continue;
        }
        Live::tell($this->production->id, Topic::Cards);
        self::assertSame(['cards'], array_column(app(LiveBus::class)->since($this->production->id, $seen), 'topic'));
    }

    public function test_a_full_server_hinders_no_work_and_is_told_in_the_log(): void
    {
        $take = $this->take('3', 1);
        Redis::connection()->command('config', ['set', 'maxmemory', '1']);
        try {
            config(['cache.default' => 'array']);
            $this->as()
                ->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]])
                ->assertOk();
        } finally {
            Redis::connection()->command('config', ['set', 'maxmemory', '64mb']);
        }
        self::assertSame('Wide', $take->refresh()->size);
    }

    public function test_a_task_whose_worker_was_killed_is_sent_again(): void
    {
        $task = app(StartTask::class)($this->production, null, 'points', 'Claps', ['clip' => 0]);
        self::assertTrue(app(StartTask::class)->isQueued($task));
        // Taken by a worker that is gone at once: the job is neither done nor given back.
        self::assertNotNull(Queue::connection()->pop('import'));
        Task::query()
            ->whereKey($task->id)
            ->update(['state' => 'running', 'updated_at' => now()->subMinute()]);
        self::assertFalse(app(StartTask::class)->isQueued($task->refresh()));
        $this->artisan('cartella:recover')->expectsOutput('Starting again: Claps')->assertSuccessful();
        self::assertTrue(app(StartTask::class)->isQueued($task->refresh()));
    }

    public function test_what_is_kept_for_a_while_is_seen_by_all_and_locks_hold_one_at_a_time(): void
    {
        Cache::put('kept', ['a' => 1], 60);
        self::assertSame(['a' => 1], Cache::get('kept'));
        $first = Cache::lock('one at a time', 30);
        self::assertTrue($first->get());
        self::assertFalse(Cache::lock('one at a time', 30)->get());
        $first->release();
        self::assertTrue(Cache::lock('one at a time', 30)->get());
    }
}
