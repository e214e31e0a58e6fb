<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Internal;

/**
 * Has whole file systems written down to their disks while the offload goes on copying: `sync -f`, which is syncfs(2),
 * once for each disk. PHP's own fsync would wait for one file after another.
 *
 * @internal
 */
final class Flush
{
    /** @var array<int, resource> by device number */
    private array $running = [];

    /** @var array<int, bool> */
    private array $ended = [];

    /** @var array<string, int> device number by folder */
    private array $devices = [];

    /** @param  list<string>  $folders */
    public static function start(array $folders): self
    {
        $flush = new self();
        clearstatcache();
        foreach ($folders as $folder) {
            $device = @stat($folder)['dev'] ?? null;
            if ($device === null) {
                continue;
            }
            $flush->devices[$folder] = $device;
            if (isset($flush->running[$device])) {
                continue;
            }
            $process = @proc_open(
                ['sync', '-f', $folder],
                [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
                $pipes,
            );
            if (is_resource($process)) {
                $flush->running[$device] = $process;
            }
        }

        return $flush;
    }

    /** Waits for the folder's disk. False when it is gone, or could not take what was written. */
    public function reached(string $folder): bool
    {
        $device = $this->devices[$folder] ?? null;
        if ($device === null) {
            return false;
        }
        if (isset($this->running[$device])) {
            $this->ended[$device] = proc_close($this->running[$device]) === 0;
            unset($this->running[$device]);
        }

        return $this->ended[$device] ?? false;
    }
}
