<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Device;
use App\Models\Production;
use App\Support\Problem;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Probe;
use Illuminate\Support\Facades\Cache;

/** The volumes that are in the readers: folders below the bench folder, looked at without changing anything on them. */
final class Bench
{
    /** @return list<string> names of volumes, in natural order */
    public function names(): array
    {
        $names = [];
        foreach (@scandir($this->root()) ?: [] as $name) {
            if ($name[0] !== '.' && is_dir($this->root().'/'.$name) && ! is_link($this->root().'/'.$name) && mb_check_encoding($name, 'UTF-8')) {
                $names[] = $name;
            }
        }
        natcasesort($names);

        return array_values($names);
    }

    /** @throws Problem if no volume of that name is in a reader */
    public function path(string $name): string
    {
        if (! in_array($name, $this->names(), true)) {
            throw Problem::missing('The card '.UnableToReadMedia::quote($name), 'Put it in the reader again; it shows up by itself.');
        }

        return $this->root().'/'.$name;
    }

    /**
     * What is on a volume, and which device and roll it seems to be of, with the reason.
     *
     * @return array{name: string, files: int, size_bytes: int, clips: int, roll: string, device: string|null, kind: 'camera'|'recorder'|'folder', why: string, problems: list<string>}
     */
    public function look(Production $production, string $name): array
    {
        $path = $this->path($name);
        $files = $bytes = $clips = $sounds = 0;
        $problems = [];
        $report = null;
        foreach (FolderWalk::of($path) as $file => $facts) {
            $file = (string) $file;
            if ($facts['type'] === 'link' || $facts['type'] === 'special') {
                $problems[] = sprintf('%s is not a regular file and will not be copied.', UnableToReadMedia::quote($file));
            }
            if ($facts['type'] !== 'file') {
                continue;
            }
            $files++;
            $bytes += $facts['size'];
            $kind = MediaNames::kindOf($file);
            $clips += (int) ($kind === 'picture' || $kind === 'sound');
            $sounds += (int) ($kind === 'sound');
            if ($facts['size'] === 0 && $kind !== null) {
                $problems[] = sprintf('%s is empty.', UnableToReadMedia::quote($file));
            }
            if ($report === null && str_ends_with(strtoupper($file), '_REPORT.TXT') && ! str_contains($file, '/') && ! MediaNames::isJunk($file)) {
                $report = (string) @file_get_contents($path.'/'.$file, false, null, 0, 4096);
            }
        }
        [$device, $why] = $this->suggest($production, $name, $report);

        return [
            'name' => $name, 'files' => $files, 'size_bytes' => $bytes, 'clips' => $clips, 'roll' => $name, 'device' => $device?->letter,
            'kind' => match (true) {
                $device === null => 'folder',
                $device->isRecorder() || ($clips > 0 && $sounds === $clips) => 'recorder',
                default => 'camera',
            },
            'why' => $why, 'problems' => array_slice($problems, 0, 20),
        ];
    }

    /** @return list<array{path: string, size_bytes: int, kind: string|null}> at most $limit */
    public function files(string $name, int $limit = 500): array
    {
        $files = [];
        foreach (FolderWalk::of($this->path($name)) as $path => $facts) {
            if ($facts['type'] === 'file' && count($files) < $limit) {
                $files[] = ['path' => mb_scrub((string) $path), 'size_bytes' => $facts['size'], 'kind' => MediaNames::isJunk((string) $path) ? null : MediaNames::kindOf((string) $path)];
            }
        }

        return $files;
    }

    /** The date that the first clip on the volume says, `YYYY-MM-DD`; null when none does. Asked once for the same content. */
    public function date(string $name, int $files, int $bytes): ?string
    {
        return Cache::remember('bench.date.'.hash('xxh64', "$name|$files|$bytes"), 86_400, fn (): string => $this->readDate($name) ?? '') ?: null;
    }

    private function readDate(string $name): ?string
    {
        foreach (FolderWalk::of($this->path($name)) as $path => $facts) {
            if ($facts['type'] === 'file' && ! MediaNames::isJunk((string) $path) && in_array(MediaNames::kindOf((string) $path), ['picture', 'sound'], true)) {
                $created = Probe::file($this->path($name).'/'.$path)->createdAt;

                return $created === null ? null : substr($created, 0, 10);
            }
        }

        return null;
    }

    /** @return array{Device|null, string} */
    private function suggest(Production $production, string $name, ?string $report): array
    {
        $devices = $production->devices()->get()->keyBy('letter');
        if ($report !== null && preg_match('/^DEVICE\s+(?:camera|recorder)\s+([A-Z])\b/mi', $report, $part) === 1 && $devices->has(strtoupper($part[1]))) {
            return [$devices[strtoupper($part[1])], 'from the report on the card'];
        }
        if (preg_match('/\A([A-Z])\d{3}/', $name, $part) === 1 && $devices->has($part[1])) {
            return [$devices[$part[1]], 'from its name'];
        }

        return [null, 'no device is named; its folders become bins'];
    }

    private function root(): string
    {
        return (string) config('cartella.bench');
    }
}
