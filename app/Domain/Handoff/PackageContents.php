<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Take;

/** What lies in a package, as its manifest says it: nothing else of the inbox can be asked for. */
final class PackageContents
{
    /** @return list<array{path: string, bytes: int, clip: string|null, take: string|null, label: string|null}> by their paths */
    public static function of(Handoff $handoff): array
    {
        $things = self::things($handoff);
        $clips = Clip::query()
            ->where('production_id', $handoff->production_id)
            ->whereIn('ulid', array_filter(array_column($things, 'clip')))
            ->with('parts.take')
            ->get()
            ->keyBy('ulid');
        $takes = Take::query()
            ->where('production_id', $handoff->production_id)
            ->whereIn('ulid', array_filter(array_column($things, 'take')))
            ->get()
            ->keyBy('ulid');
        $list = [];
        foreach (self::files($handoff) as $path => $bytes) {
            $thing = self::thingOf($things, $path);
            $clip = $clips[$thing['clip'] ?? ''] ?? null;
            $take = $takes[$thing['take'] ?? ''] ?? null;
            $list[] = [
                'path' => $path,
                'bytes' => $bytes,
                'clip' => $clip?->ulid,
                'take' => $take?->ulid,
                'label' => $take?->label() ?? $clip?->slates(),
            ];
        }

        return $list;
    }

    /** @return array{clip_id: int|null, take_id: int|null}|null what a path of the package is about; null if it holds no such file */
    public static function find(Handoff $handoff, string $path): ?array
    {
        if (!isset(self::files($handoff)[$path])) {
            return null;
        }
        $thing = self::thingOf(self::things($handoff), $path);
        $id = static fn(string $model, ?string $ulid): ?int => $ulid === null
            ? null
            : $model::query()->where('production_id', $handoff->production_id)->where('ulid', $ulid)->value('id');

        return ['clip_id' => $id(Clip::class, $thing['clip'] ?? null), 'take_id' => $id(Take::class, $thing['take'] ?? null)];
    }

    /** Whether its manifest knows such a file, and it is there. */
    public static function has(Handoff $handoff, string $path): bool
    {
        return isset(self::files($handoff)[$path]) && Delivery::of($handoff)->has($path);
    }

    /** A file of the package on this machine; null if its manifest knows no such file, or it is gone. */
    public static function file(Handoff $handoff, string $path): ?string
    {
        return isset(self::files($handoff)[$path]) ? Delivery::of($handoff)->read($path) : null;
    }

    /** @return array<string, int> bytes by path */
    private static function files(Handoff $handoff): array
    {
        static $known = [];
        $delivery = Delivery::of($handoff);
        if ($handoff->delivered_at === null || !$delivery->isThere()) {
            return [];
        }
        $key = $delivery->folder() . ' ' . $handoff->delivered_at->getTimestamp();
        if (!isset($known[$key])) {
            $files = $delivery->known();
            ksort($files);
            $known = [$key => $files];
        }

        return $known[$key];
    }

    /** @return array<string, array{clip?: string, take?: string}> by path without what formats and numbers put behind it */
    private static function things(Handoff $handoff): array
    {
        $things = [];
        foreach ($handoff->packing ?? [] as $key => [$path]) {
            [$part, $ulid] = explode(':', (string) $key);
            if (in_array($part, ['proxies', 'originals', 'sound', 'imports'], true)) {
                $things[$path] = ['clip' => $ulid];
            } elseif ($part === 'takes') {
                $things[$path] = ['take' => $ulid];
            }
        }

        return $things;
    }

    /**
     * @param  array<string, array{clip?: string, take?: string}>  $things
     * @return array{clip?: string, take?: string}
     */
    private static function thingOf(array $things, string $path): array
    {
        if (isset($things[$path])) {
            return $things[$path];
        }
        // Lists have a place without the end that their format puts behind it, and one for each angle.
        $stem = (string) preg_replace('/\.[a-z]{3,4}\z/', '', $path);
        for (; $stem !== ''; $stem = (string) substr($stem, 0, (int) strrpos($stem, '_'))) {
            if (isset($things[$stem])) {
                return $things[$stem];
            }
            if (!str_contains($stem, '_')) {
                break;
            }
        }

        return [];
    }
}
