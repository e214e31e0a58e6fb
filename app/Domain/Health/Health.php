<?php

declare(strict_types=1);

namespace App\Domain\Health;

use App\Domain\Cards\ReaderWatch;
use App\Domain\Tasks\Room;
use App\Models\Store;
use App\Models\Task;
use App\Support\Folders;
use Illuminate\Queue\RedisQueue;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;

/** What is up, how full the disks are, and how long the queues. */
final class Health
{
    /** A job that waits for longer than this has nobody to do it. */
    private const LATE_SECONDS = 900;

    private const QUEUES = ['copy', 'check', 'import', 'sync', 'export', 'media', 'default', 'words'];

    public function __construct(private readonly Room $room) {}

    /**
     * @return array{ok: bool, problems: list<string>, parts: array<string, string>, disks: list<array{what: string, free_bytes: int|null,
     *     total_bytes: int|null}>, queues: list<array{name: string, waiting: int, oldest_seconds: int}>, tasks: array{running: int,
     *     waiting: int, failed_today: int}}
     */
    public function look(): array
    {
        $problems = [];
        try {
            DB::select('SELECT 1');
        } catch (\Throwable $trouble) {
            return [
                'ok' => false,
                'problems' => ['The database does not answer.'],
                'parts' => ['database' => 'down'],
                'disks' => [],
                'queues' => [],
                'tasks' => ['running' => 0, 'waiting' => 0, 'failed_today' => 0],
            ];
        }
        $parts = [
            'database' => 'up',
            'readers' => ReaderWatch::isAlive() ? 'watched' : 'not watched',
            'schedule' => Cache::get('schedule.beat', 0) > now()->subMinutes(2)->getTimestamp() ? 'up' : 'not seen for two minutes',
        ];
        foreach ($parts as $name => $state) {
            if (!in_array($state, ['up', 'watched'], true)) {
                $problems[] = ucfirst("$name: $state.");
            }
        }
        $disks = $this->disks();
        $floor = (int) config('cartella.floor_bytes');
        if ($disks[0]['free_bytes'] !== null && $disks[0]['free_bytes'] < $floor) {
            $problems[] = sprintf('Less than %.1f GB are free where the database lies; work that fills disks waits.', $floor / 1e9);
        }
        $queues = $this->queues();
        foreach ($queues as $queue) {
            if ($queue['oldest_seconds'] > self::LATE_SECONDS) {
                $problems[] = sprintf('A job of %s has waited for %d minutes.', $queue['name'], intdiv($queue['oldest_seconds'], 60));
            }
        }

        return [
            'ok' => $problems === [],
            'problems' => $problems,
            'parts' => $parts,
            'disks' => $disks,
            'queues' => $queues,
            'tasks' => [
                'running' => Task::query()->where('state', 'running')->count(),
                'waiting' => Task::query()->where('state', 'waiting')->count(),
                'failed_today' => Task::query()->where('state', 'failed')->where('ended_at', '>', now()->subDay())->count(),
            ],
        ];
    }

    /** @return non-empty-list<array{what: string, free_bytes: int|null, total_bytes: int|null}> */
    private function disks(): array
    {
        $paths = [
            'database' => Folders::database(),
            'proxies' => Folders::media(),
            'inbox' => Folders::inbox(),
        ];
        $disks = [];
        foreach ($paths as $what => $path) {
            while (!file_exists($path) && dirname($path) !== $path) {
                $path = dirname($path);
            }
            $disks[] = [
                'what' => $what,
                'free_bytes' => $this->room->freeBytes($path),
                'total_bytes' => ($total = @disk_total_space($path)) === false ? null : (int) $total,
            ];
        }
        /** @var \Illuminate\Database\Eloquent\Collection<int, Store> $stores */
        $stores = Store::query()->whereNull('retired_at')->orderBy('position')->get()->unique('path');
        foreach ($stores as $store) {
            $disks[] = [
                'what' => $store->name . ($store->isThere() ? '' : ' (not there)'),
                'free_bytes' => $store->freeBytes(),
                'total_bytes' => $store->isThere() ? (int) @disk_total_space($store->path) : null,
            ];
        }

        return $disks;
    }

    /** @return list<array{name: string, waiting: int, oldest_seconds: int}> */
    private function queues(): array
    {
        $now = now()->getTimestamp();
        $queues = Queue::connection();
        if ($queues instanceof RedisQueue) {
            return array_map(
                static fn(string $name): array => [
                    'name' => $name,
                    'waiting' => (int) $queues->pendingSize($name),
                    'oldest_seconds' => max(0, $now - (int) ($queues->creationTimeOfOldestPendingJob($name) ?? $now)),
                ],
                self::QUEUES,
            );
        }
        $rows = DB::table('jobs')
            ->whereNull('reserved_at')
            ->groupBy('queue')
            ->selectRaw('queue, COUNT(*) AS jobs, MIN(available_at) AS oldest')
            ->get()
            ->keyBy('queue');

        return array_map(
            static fn(string $name): array => [
                'name' => $name,
                'waiting' => (int) ($rows[$name]->jobs ?? 0),
                'oldest_seconds' => isset($rows[$name]) ? max(0, $now - (int) $rows[$name]->oldest) : 0,
            ],
            self::QUEUES,
        );
    }
}
