<?php

declare(strict_types=1);

namespace Tests\App\Machines;

use App\Domain\Handoff\ReadTokens;
use Database\Factories\ProductionFactory;
use Database\Factories\UserFactory;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\RealServer;
use Tests\App\TestCase;

/** A database server that follows another one, and what is read from it. */
final class ReplicaTest extends TestCase
{
    /** @var list<RealServer> */
    private array $servers = [];

    private string $usual = '';

    protected function tearDown(): void
    {
        // What the test began in the usual database is taken back there.
        DB::setDefaultConnection($this->usual);
        foreach ($this->servers as $server) {
            $server->end();
        }
        parent::tearDown();
    }

    /** @param  list<string>  $more */
    private function server(string $connection, array $more): RealServer
    {
        $this->servers[] = $server = RealServer::database($more);
        config([
            "database.connections.$connection" => [
                ...config('database.connections.mariadb'),
                ...['host' => '127.0.0.1', 'port' => $server->port, 'username' => 'root', 'password' => '', 'unix_socket' => ''],
            ],
        ]);

        return $server;
    }

    public function test_programs_of_others_read_from_the_server_that_follows_while_it_is_there(): void
    {
        $this->usual = DB::getDefaultConnection();
        $name = (string) config('database.connections.mariadb.database');
        $primary = $this->server('primary', ['--log-bin=changes', '--server-id=1']);
        $replica = $this->server('replica', ['--server-id=2', '--read-only=1']);
        foreach (['primary', 'replica'] as $connection) {
            config(["database.connections.$connection.database" => 'mysql']);
        }
        DB::connection('replica')->statement(
            "CHANGE MASTER TO MASTER_HOST = '127.0.0.1', MASTER_PORT = $primary->port, MASTER_USER = 'follower', " .
                "MASTER_PASSWORD = 'tide-mill', MASTER_LOG_FILE = 'changes.000001', MASTER_LOG_POS = 4",
        );
        DB::connection('primary')->unprepared(
            "CREATE USER follower@'%' IDENTIFIED BY 'tide-mill'; GRANT REPLICATION SLAVE ON *.* TO follower@'%'; CREATE DATABASE `$name`",
        );
        DB::connection('replica')->statement('START SLAVE');
        $caughtUp = static function () use ($name): void {
            $at = (array) DB::connection('primary')->selectOne('SHOW MASTER STATUS');
            $waited = DB::connection('replica')->scalar('SELECT MASTER_POS_WAIT(?, ?, 60)', [$at['File'], $at['Position']]);
            self::assertGreaterThanOrEqual(0, $waited ?? -2, $name);
        };
        $caughtUp();
        foreach (['primary', 'replica'] as $connection) {
            config(["database.connections.$connection.database" => $name]);
            DB::purge($connection);
        }
        DB::setDefaultConnection('primary');
        Artisan::call('migrate', ['--database' => 'primary', '--force' => true]);
        $production = ProductionFactory::new()->createOne(['name' => 'Low Water']);
        [, $token] = ReadTokens::make($production, UserFactory::new()->createOne(), 'Wall clock');
        $caughtUp();
        $asked = fn(): string => $this->getJson('/api/v1/production', ['Authorization' => "Bearer $token"])
            ->assertOk()
            ->json('name');
        self::assertSame('Low Water', $asked());
        // It stands still for a while: what programs of others read may be older, what the desk does is not.
        DB::connection('replica')->statement('STOP SLAVE SQL_THREAD');
        $production->update(['name' => 'High Water']);
        self::assertSame('Low Water', $asked());
        self::assertSame('primary', DB::getDefaultConnection());
        DB::connection('replica')->statement('START SLAVE SQL_THREAD');
        $caughtUp();
        self::assertSame('High Water', $asked());
        // Gone, it is not missed.
        $production->update(['name' => 'Slack Water']);
        $replica->end();
        DB::purge('replica');
        self::assertSame('Slack Water', $asked());
    }
}
