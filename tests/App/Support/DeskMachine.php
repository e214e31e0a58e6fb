<?php

declare(strict_types=1);

namespace Tests\App\Support;

use Symfony\Component\Process\Process;

/** A machine of a desk that has several: its own folder, a web process and workers, which know the others only by what they share. */
final class DeskMachine
{
    /** @var array<string, Process> */
    private array $processes = [];

    private readonly \CurlHandle $curl;

    public readonly int $port;

    /** @param  array<string, string>  $shared  settings that all machines have */
    public function __construct(private readonly string $folder, private readonly array $shared)
    {
        foreach (['storage/framework/views', 'storage/framework/cache/data', 'storage/logs', 'cache'] as $name) {
            mkdir("$folder/$name", 0777, true);
        }
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $this->port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $this->curl = curl_init();
        curl_setopt_array($this->curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_COOKIEFILE => '',
            CURLOPT_TIMEOUT => 30,
            CURLOPT_PROXY => '',
        ]);
    }

    /** @return array<string, string> */
    private function settings(): array
    {
        $own = [
            'CARTELLA_VAR' => $this->folder,
            'LARAVEL_STORAGE_PATH' => "$this->folder/storage",
            'APP_URL' => "http://127.0.0.1:$this->port",
        ];
        foreach (['SERVICES', 'PACKAGES', 'CONFIG', 'ROUTES', 'EVENTS'] as $name) {
            $own["APP_{$name}_CACHE"] = "$this->folder/cache/" . strtolower($name) . '.php';
        }

        return $own + $this->shared;
    }

    public function run(string $name, string ...$command): void
    {
        $this->start($name, [PHP_BINARY, ...$command]);
    }

    /** Workers as `./cartella work` has them. */
    public function work(string $name): void
    {
        $this->start($name, ['./cartella', 'work', '1'], ['CARTELLA_PROFILE' => 'test']);
    }

    /**
     * @param  list<string>  $command
     * @param  array<string, string>  $more  settings
     */
    private function start(string $name, array $command, array $more = []): void
    {
        $root = dirname(__DIR__, 3);
        $process = new Process($command, $name === 'web' ? "$root/public" : $root, $more + $this->settings(), timeout: null);
        $process->start();
        $this->processes[$name] = $process;
    }

    public function serve(): void
    {
        $server = dirname(__DIR__, 3) . '/vendor/laravel/framework/src/Illuminate/Foundation/resources/server.php';
        $this->run('web', '-S', "127.0.0.1:$this->port", $server);
    }

    /** Ends processes as a power cut does, with what they have started. */
    public function kill(string ...$names): void
    {
        foreach ($names as $name) {
            $pid = $this->processes[$name]->getPid();
            foreach (explode("\n", trim((string) @file_get_contents("/proc/$pid/task/$pid/children"))) as $children) {
                foreach (array_filter(explode(' ', trim($children))) as $child) {
                    posix_kill((int) $child, SIGKILL);
                }
            }
            $this->processes[$name]->signal(SIGKILL);
        }
    }

    public function once(string ...$command): string
    {
        return (new Process([PHP_BINARY, 'artisan', ...$command], dirname(__DIR__, 3), $this->settings(), timeout: 120))
            ->mustRun()
            ->getOutput();
    }

    /**
     * @param  array<string, mixed>|null  $body
     * @return array{int, mixed, string} status, decoded answer, where it leads
     */
    public function ask(string $method, string $path, ?array $body = null): array
    {
        $headers = ['Accept: application/json', 'Content-Type: application/json'];
        foreach (curl_getinfo($this->curl, CURLINFO_COOKIELIST) as $cookie) {
            if (str_contains($cookie, 'XSRF-TOKEN')) {
                $headers[] = 'X-XSRF-TOKEN: ' . urldecode(explode("\t", $cookie)[6]);
            }
        }
        curl_setopt_array($this->curl, [
            CURLOPT_URL => "http://127.0.0.1:$this->port$path",
            CURLOPT_HTTPHEADER => $headers,
            CURLOPT_CUSTOMREQUEST => $method,
            CURLOPT_POSTFIELDS => $body === null ? null : json_encode($body),
        ]);
        $text = (string) curl_exec($this->curl);

        return [
            curl_getinfo($this->curl, CURLINFO_RESPONSE_CODE),
            json_decode($text, true),
            (string) curl_getinfo($this->curl, CURLINFO_REDIRECT_URL),
        ];
    }

    /** What its processes said and its logs hold, for a test that fails. */
    public function told(): string
    {
        $told = '';
        foreach ($this->processes as $name => $process) {
            $told .= "$name: " . substr($process->getErrorOutput() . $process->getOutput(), -1500) . "\n";
        }
        foreach (glob("$this->folder/storage/logs/*.log") ?: [] as $log) {
            $told .= substr((string) file_get_contents($log), 0, 3000);
        }

        return $told;
    }

    public function end(): void
    {
        foreach ($this->processes as $process) {
            $process->stop(3);
        }
    }
}
