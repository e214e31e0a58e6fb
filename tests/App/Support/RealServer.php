<?php

declare(strict_types=1);

namespace Tests\App\Support;

use Symfony\Component\Process\Process;

/** A server of somebody else's on a loopback port of its own, ended with the test. */
final class RealServer
{
    private function __construct(public readonly int $port, private Process $process, private readonly string $folder) {}

    public static function redis(): self
    {
        return self::start(
            static fn(int $port, string $folder): array => [
                ...['redis-server', '--port', (string) $port, '--bind', '127.0.0.1', '--dir', $folder],
                ...['--save', '', '--appendonly', 'no', '--maxmemory', '64mb', '--maxmemory-policy', 'noeviction'],
            ],
        );
    }

    public static function s3(): self
    {
        return self::start(
            static fn(int $port, string $folder): array => [
                ...[dirname(__DIR__, 3) . '/node_modules/.bin/s3rver', '--directory', $folder, '--port', (string) $port],
                ...['--address', '127.0.0.1', '--configure-bucket', 'cartella', '--silent'],
            ],
        );
    }

    /** A store that sends the first requests away with 503. */
    public static function busyStore(int $requests): self
    {
        return self::start(static function (int $port, string $folder) use ($requests): array {
            file_put_contents("$folder/busy", (string) $requests);

            return [PHP_BINARY, '-d', 'enable_post_data_reading=0', '-S', "127.0.0.1:$port", __DIR__ . '/busy-store.php'];
        }, static fn(string $folder): array => ['BUSY_FOLDER' => $folder]);
    }

    /** @param  list<string>  $more  of the server's options */
    public static function database(array $more): self
    {
        return self::start(static function (int $port, string $folder) use ($more): array {
            $who = posix_getpwuid(posix_geteuid())['name'];
            (new Process([
                ...['mariadb-install-db', '--no-defaults', "--datadir=$folder", "--user=$who", '--skip-test-db'],
                '--auth-root-authentication-method=normal',
            ]))->mustRun();

            return [
                ...['mariadbd', '--no-defaults', "--datadir=$folder", "--tmpdir=$folder", "--user=$who", "--port=$port"],
                '--bind-address=127.0.0.1',
                ...["--socket=$folder/socket", '--innodb-buffer-pool-size=32M', '--character-set-server=utf8mb4', ...$more],
            ];
        });
    }

    /**
     * @param  callable(int, string): list<string>  $command
     * @param  (callable(string): array<string, string>)|null  $settings  of its environment
     */
    private static function start(callable $command, ?callable $settings = null): self
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $folder = sys_get_temp_dir() . '/cartella-server-' . bin2hex(random_bytes(6));
        mkdir($folder);
        $process = new Process($command($port, $folder), env: $settings === null ? null : $settings($folder), timeout: null);
        $server = new self($port, $process, $folder);
        $server->await();

        return $server;
    }

    private function await(): void
    {
        $this->process->start();
        for ($end = microtime(true) + 30; ($door = @fsockopen('127.0.0.1', $this->port)) === false; usleep(20_000)) {
            if (microtime(true) > $end || !$this->process->isRunning()) {
                throw new \RuntimeException('It did not start: ' . $this->process->getErrorOutput() . $this->process->getOutput());
            }
        }
        fclose($door);
    }

    /** Ends it and starts it again at the same port, with what it keeps on disk. */
    public function restart(): void
    {
        $this->process->stop(3);
        $this->process = clone $this->process;
        $this->await();
    }

    public function end(): void
    {
        $this->process->stop(3);
        (new Process(['rm', '-rf', '--', $this->folder]))->run();
    }
}
