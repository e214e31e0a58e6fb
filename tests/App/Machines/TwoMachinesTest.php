<?php

declare(strict_types=1);

namespace Tests\App\Machines;

use App\Console\BenchDay;
use App\Models\Task;
use Database\Factories\DeviceFactory;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Tests\App\Support\DeskMachine;
use Tests\App\Support\MakesMedia;
use Tests\App\Support\RealServer;
use Tests\App\TestCase;

/**
 * Two machines that share a database, a Redis and a bucket, and the volumes of the copies, and nothing else: a card comes in at one, its
 * media are made by both, one of them loses its power, the queue starts again empty, pages of either show the same, and a package of the
 * day is made by one and opened at the other.
 */
final class TwoMachinesTest extends TestCase
{
    use MakesMedia;

    private const CLIPS = 8;

    private const SECONDS = 2;

    /** @var list<RealServer> */
    private array $servers = [];

    /** @var list<DeskMachine> */
    private array $machines = [];

    private string $usual = '';

    /** What was answered last to what is waited for. */
    private mixed $told = null;

    protected function tearDown(): void
    {
        foreach ($this->machines as $machine) {
            $machine->end();
        }
        foreach ($this->servers as $server) {
            $server->end();
        }
        if ($this->usual !== '') {
            DB::setDefaultConnection($this->usual);
            DB::connection('apart')->statement('DROP DATABASE IF EXISTS cartella_machines');
        }
        parent::tearDown();
    }

    /** @return array<string, string> what both machines are told */
    private function shared(): array
    {
        $this->servers = [$redis, $bucket] = [RealServer::redis(), RealServer::s3()];
        $own = config('database.connections.mariadb');

        return [
            'APP_ENV' => 'production',
            'APP_KEY' => (string) config('app.key'),
            'DB_CONNECTION' => 'mariadb',
            'DB_HOST' => (string) $own['host'],
            'DB_PORT' => (string) $own['port'],
            'DB_USERNAME' => (string) $own['username'],
            'DB_PASSWORD' => (string) $own['password'],
            'DB_DATABASE' => 'cartella_machines',
            'QUEUE_CONNECTION' => 'redis',
            'CACHE_STORE' => 'redis',
            'CARTELLA_LIVE' => 'redis',
            'REDIS_HOST' => '127.0.0.1',
            'REDIS_PORT' => (string) $redis->port,
            'CARTELLA_MEDIA' => 's3',
            'CARTELLA_PACKAGES' => 's3',
            'S3_ENDPOINT' => "http://127.0.0.1:$bucket->port",
            'S3_BUCKET' => 'cartella',
            'S3_KEY' => 'S3RVER',
            'S3_SECRET' => 'S3RVER',
            'CARTELLA_STORE_1' => $this->folder . '/one',
            'CARTELLA_STORE_2' => $this->folder . '/two',
            'CARTELLA_INBOX' => $this->folder . '/inbox',
            'CARTELLA_FLOOR_BYTES' => '0',
            'LOG_CHANNEL' => 'single',
        ];
    }

    /** @param  callable(): bool  $question */
    private function until(callable $question, string $otherwise): void
    {
        for ($end = microtime(true) + 90; !$question(); usleep(100_000)) {
            if (microtime(true) > $end) {
                self::fail(
                    $otherwise .
                        ' ' .
                        json_encode($this->told) .
                        "\n" .
                        implode("\n", array_map(static fn(DeskMachine $one): string => $one->told(), $this->machines)),
                );
            }
        }
    }

    public function test_a_day_goes_through_two_machines_while_one_loses_its_power_and_the_queue_starts_again(): void
    {
        $shared = $this->shared();
        // On a connection of its own: such a statement ends the transaction that the test runs in.
        config(['database.connections.apart' => ['database' => ''] + config('database.connections.mariadb')]);
        DB::connection('apart')->statement(
            'CREATE DATABASE IF NOT EXISTS cartella_machines CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci',
        );
        config(['database.connections.machines' => ['database' => 'cartella_machines'] + config('database.connections.mariadb')]);
        $this->usual = DB::getDefaultConnection();
        DB::setDefaultConnection('machines');
        Artisan::call('migrate:fresh', ['--database' => 'machines', '--force' => true]);
        $bench = BenchDay::begin();
        self::assertNotNull($bench);
        DeviceFactory::new()->createOne(['production_id' => $bench->production->id, 'letter' => 'A', 'kind' => 'camera', 'lane' => 0]);

        for ($n = 1; $n <= self::CLIPS; $n++) {
            $this->camera(".A001/A001C00$n.mov", $this->stage(self::SECONDS, $n), sprintf('10:00:%02d:00', 4 * $n));
        }
        rename($this->folder . '/bench/.A001', $this->folder . '/bench/A001');
        $reads = ['CARTELLA_BENCH' => $this->folder . '/bench'];
        $this->machines = [$first, $second] = [
            new DeskMachine($this->folder . '/first', $reads + $shared),
            // It has no readers.
            new DeskMachine($this->folder . '/second', ['CARTELLA_BENCH' => $this->folder . '/none'] + $shared),
        ];
        foreach ($this->machines as $machine) {
            $machine->serve();
            $this->until(fn(): bool => $machine->ask('GET', '/api/session')[0] === 200, 'a web process does not answer');
            $who = ['email' => 'bench@lowwater.test', 'password' => 'tide-mill'];
            self::assertSame(200, $machine->ask('POST', '/api/session', $who)[0]);
        }
        $first->run('watch', 'artisan', 'cartella:watch');
        $first->run('copy', 'artisan', 'queue:work', '--queue=copy,check', '--sleep=0.2', '--timeout=0');
        $work = ['artisan', 'queue:work', '--queue=import,sync,export,media,default', '--sleep=0.2', '--timeout=0'];
        $second->run('work', ...$work);
        $production = "/api/productions/{$bench->production->ulid}";
        $day = "$production/days/{$bench->day->ulid}";
        $last = $second->ask('GET', "$production/changes")[1]['last'];
        $this->until(function () use ($first, $day): bool {
            $this->told = $first->ask('POST', "$day/volumes/A001/offload", ['roll' => 'A001', 'device' => 'A']);

            return $this->told[0] < 300;
        }, 'the card cannot be offloaded');
        $this->until(
            fn(): bool => Task::query()->where('kind', 'catalogue')->where('state', 'running')->exists(),
            'nobody catalogues the card',
        );
        // The power of the second machine's workers goes in the middle, and comes again later; the first has workers by then.
        $second->kill('work');
        $first->run('work', ...$work);
        // And the queue with all that waits in it, while it is worked on.
        $this->servers[0]->restart();
        $this->until(function () use ($first, $second, $day): bool {
            $first->once('cartella:recover');
            $clips = self::clips($second->ask('GET', "$day/log")[1]);

            return count($clips) === self::CLIPS && array_filter($clips, static fn(array $clip): bool => !$clip['ready']) === [];
        }, 'the media are not made');
        $second->work('again');

        // Pages of the other machine show it, with media that lie in the bucket only.
        self::assertTrue($second->ask('GET', "$day/cards")[1]['cards'][0]['is_safe']);
        $clip = self::clips($second->ask('GET', "$day/log")[1])[0]['ulid'];
        [$status, , $address] = $second->ask('GET', "$production/clips/$clip/media/proxy");
        self::assertSame(302, $status);
        self::assertSame('ftyp', substr(Http::get($address)->throw()->body(), 4, 4));
        self::assertSame([], glob($this->folder . '/{first,second}/proxies/*', GLOB_BRACE) ?: []);

        // What is done at one is heard at the other, and a task that one sends the other does.
        self::assertSame(200, $first->ask('POST', "$day/log/line", ['text' => '7A/1 the gauge', 'row' => null])[0]);
        $topics = array_column($second->ask('GET', "$production/changes?after=$last")[1]['events'], 'topic');
        self::assertContains('takes', $topics);
        self::assertContains('cards', $topics);
        $first->kill('work');
        self::assertLessThan(300, $first->ask('POST', "$day/lineup", [])[0]);
        $this->until(function () use ($first): bool {
            $first->once('cartella:recover');

            return Task::query()->where('kind', 'lineup')->where('state', 'done')->exists();
        }, 'nobody lines the day up');
        $choice = ['days' => [$bench->day->ulid], 'bins' => []];
        $points = $first->ask('POST', "$production/handoffs/plan", $choice)[1]['points'];
        $waived = array_map(static fn(array $one): array => ['day' => $one['day'], 'point' => $one['key'], 'reason' => 'known'], $points);
        [$status, $made] = $first->ask('POST', "$production/handoffs", $choice + ['waived' => $waived]);
        self::assertSame(202, $status, json_encode($made) ?: '');
        $this->until(
            fn(): bool => $first->ask('GET', "$production/handoffs/$made[ulid]")[1]['handoff']['state'] === 'delivered',
            'nobody packs the day',
        );
        [$status, , $address] = $first->ask('GET', "$production/handoffs/$made[ulid]/file?path=README.pdf");
        self::assertSame(302, $status);
        self::assertSame('%PDF', substr(Http::get($address)->throw()->body(), 0, 4));
        self::assertSame(0, Task::query()->where('state', 'failed')->count());
    }

    /** @param  array<string, mixed>  $sheet  @return list<array<string, mixed>> */
    private static function clips(array $sheet): array
    {
        return array_values(
            array_filter(
                array_merge($sheet['unslated'], ...array_column($sheet['takes'], 'clips')),
                static fn(array $clip): bool => $clip['kind'] === 'picture',
            ),
        );
    }
}
