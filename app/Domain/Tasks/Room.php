<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Support\Folders;

/**
 * Free space, looked at before work that fills disks begins. A floor is kept on the volume of the database, so that
 * people can still sign in, stop work and take things away when everything else is full.
 */
class Room
{
    /** What is left free on any volume, bytes. */
    private const MARGIN = 16 << 20;

    /**
     * @param  array<string, int>  $bytes  that will be written below each path
     *
     * @throws NoRoom if a volume has less, with the floor that it has to keep
     */
    public function need(array $bytes): void
    {
        $volumes = [];
        foreach ($bytes as $path => $count) {
            $path = self::existing((string) $path);
            $device = @stat($path)['dev'] ?? 0;
            $volumes[$device] = ['path' => $path, 'bytes' => ($volumes[$device]['bytes'] ?? 0) + $count];
        }
        foreach ($volumes as $device => $volume) {
            $free = $this->freeBytes($volume['path']);
            $isDatabases = $device === (@stat(self::existing(Folders::database()))['dev'] ?? null);
            $floor = $isDatabases ? (int) config('cartella.floor_bytes') : self::MARGIN;
            if ($free !== null && $free < $volume['bytes'] + $floor) {
                throw new NoRoom(
                    sprintf(
                        'Waits for room: %s needs %s, %s %s free%s.',
                        self::name($volume['path']),
                        self::size($volume['bytes']),
                        self::size($free),
                        $free < 2e9 && $free >= 1e9 ? 'is' : 'are',
                        $isDatabases ? sprintf(', and %s are kept for the desk itself', self::size($floor)) : '',
                    ),
                );
            }
        }
    }

    /** @throws NoRoom if the database's volume has come below its floor while the work went on */
    public function keepFloor(): void
    {
        $free = $this->freeBytes(Folders::database());
        // Half of it: what was let begin with room for all of its work may use the margin of an estimate.
        if ($free !== null && $free < intdiv((int) config('cartella.floor_bytes'), 2)) {
            throw new NoRoom(sprintf('Waits for room: only %s are free where the desk keeps its own records.', self::size($free)));
        }
    }

    public function freeBytes(string $path): ?int
    {
        $free = @disk_free_space(self::existing($path));

        return $free === false ? null : (int) $free;
    }

    private static function existing(string $path): string
    {
        while (!file_exists($path) && dirname($path) !== $path) {
            $path = dirname($path);
        }

        return $path;
    }

    private static function name(string $path): string
    {
        return 'the volume of ' . (basename($path) === '' ? '/' : basename($path));
    }

    private static function size(int $bytes): string
    {
        foreach (['TB' => 1e12, 'GB' => 1e9, 'MB' => 1e6] as $unit => $size) {
            if ($bytes >= $size) {
                return sprintf('%.' . ($bytes >= 10 * $size ? 0 : 1) . 'f %s', $bytes / $size, $unit);
            }
        }

        return sprintf('%d kB', (int) ceil($bytes / 1000));
    }
}
