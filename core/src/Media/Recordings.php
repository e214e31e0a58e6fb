<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Time\Ticks;

/**
 * Finds the files of a card that are one recording: a clip that the device went on with in another file (a span), the
 * tracks of one recording in a file each (a split), and what lies beside a clip and only speaks of it (sidecars).
 *
 * Names alone never decide. A span needs the next file to begin where the last one ends; a split needs files of one
 * channel that begin and end together; and both need names, or a family in iXML, that say they belong together.
 */
final class Recordings
{
    /** How far the end of one file and the start of the next may lie apart. */
    private const SEAM_TICKS = Ticks::PER_SECOND / 20;

    private const SIDECARS = ['xml', 'txt', 'csv', 'json', 'cdl', 'cc', 'ccc', 'thm', 'jpg', 'jpeg', 'png', 'smi', 'bim', 'cpi', 'rsv'];

    /**
     * @param  array<string, MediaInfo>  $clips  pictures and sounds by relative path
     * @param  list<string>  $others  the other files' relative paths
     * @return list<array{layout: 'single'|'span'|'split', parts: non-empty-list<string>,
     *     sidecars: list<string>}> in the order of their first files
     */
    public static function of(array $clips, array $others): array
    {
        $paths = array_map('strval', array_keys($clips));
        usort($paths, strnatcmp(...));
        $recordings = [];
        $taken = [];
        foreach ($paths as $path) {
            if (isset($taken[$path])) {
                continue;
            }
            $split = self::split($path, $paths, $clips, $taken);
            $parts = $split === [] ? self::span($path, $paths, $clips, $taken) : $split;
            $taken += array_fill_keys($parts, true);
            $recordings[] = [
                'layout' => count($parts) === 1 ? 'single' : ($split === [] ? 'span' : 'split'),
                'parts' => $parts,
                'sidecars' => [],
            ];
        }

        return self::withSidecars($recordings, $others);
    }

    /**
     * @param  list<string>  $paths
     * @param  array<string, MediaInfo>  $clips
     * @param  array<string, bool>  $taken
     * @return list<string> empty when the file stands alone
     */
    private static function split(string $path, array $paths, array $clips, array $taken): array
    {
        $own = $clips[$path];
        if ($own->kind !== 'sound' || count($own->channels) !== 1 || $own->startTicks === null) {
            return [];
        }
        $parts = [];
        foreach ($paths as $other) {
            $info = $clips[$other];
            if (
                !isset($taken[$other]) &&
                dirname($other) === dirname($path) &&
                $info->kind === 'sound' &&
                count($info->channels) === 1 &&
                $info->startTicks === $own->startTicks &&
                $info->durationTicks === $own->durationTicks &&
                $info->sampleRate === $own->sampleRate &&
                (self::family($info, $own) || self::trackStem($other) === self::trackStem($path))
            ) {
                $parts[] = $other;
            }
        }

        return count($parts) > 1 ? $parts : [];
    }

    /**
     * @param  list<string>  $paths
     * @param  array<string, MediaInfo>  $clips
     * @param  array<string, bool>  $taken
     * @return non-empty-list<string>
     */
    private static function span(string $path, array $paths, array $clips, array $taken): array
    {
        $parts = [$path];
        $last = $path;
        foreach ($paths as $next) {
            if (
                !isset($taken[$next]) &&
                strnatcmp($next, $last) > 0 &&
                dirname($next) === dirname($path) &&
                self::goesOn($clips[$last], $clips[$next]) &&
                (self::family($clips[$last], $clips[$next]) || self::follows($last, $next))
            ) {
                $parts[] = $next;
                $last = $next;
            }
        }

        return $parts;
    }

    private static function goesOn(MediaInfo $before, MediaInfo $after): bool
    {
        return $before->kind === $after->kind &&
            $before->startTicks !== null &&
            $after->startTicks !== null &&
            $before->durationTicks !== null &&
            abs($before->startTicks + $before->durationTicks - $after->startTicks) <= self::SEAM_TICKS &&
            count($before->channels) === count($after->channels) &&
            $before->sampleRate === $after->sampleRate &&
            $before->width === $after->width &&
            $before->height === $after->height &&
            $before->rate?->label() === $after->rate?->label();
    }

    private static function family(MediaInfo $one, MediaInfo $other): bool
    {
        $uid = $one->ixml->fileSet['uid'] ?? null;

        return $uid !== null && $uid === ($other->ixml->fileSet['uid'] ?? null);
    }

    /**
     * Whether the names count on: `A001C003_001`, `A001C003_002`, or `S001T03`, `S001T03_2`. What stands before the
     * count must hold a number of its own, or every clip of a device that only counts would be one.
     */
    private static function follows(string $before, string $after): bool
    {
        [$stem, $count] = self::counted($before);
        [$next, $nextCount] = self::counted($after);
        if ($nextCount === null || preg_match('/\d/', basename($next)) !== 1) {
            return false;
        }

        return $count === null
            ? $next === pathinfo($before, PATHINFO_FILENAME) && $nextCount <= 2
            : $stem === $next && $nextCount === $count + 1;
    }

    /** @return array{string, int|null} the name without its count, and the count */
    private static function counted(string $path): array
    {
        $name = pathinfo($path, PATHINFO_FILENAME);

        return preg_match('/\A(.+)[-_.](\d{1,3})\z/', $name, $part) === 1 ? [$part[1], (int) $part[2]] : [$name, null];
    }

    /** The name without the number or letter of its track. */
    private static function trackStem(string $path): string
    {
        return (string) preg_replace('/[-_.](?:ch|tr|a)?(?:\d{1,2}|l|r)\z/i', '', pathinfo($path, PATHINFO_FILENAME));
    }

    /**
     * @param  list<array{layout: 'single'|'span'|'split', parts: non-empty-list<string>, sidecars: list<string>}>  $recordings
     * @param  list<string>  $others
     * @return list<array{layout: 'single'|'span'|'split', parts: non-empty-list<string>, sidecars: list<string>}>
     */
    private static function withSidecars(array $recordings, array $others): array
    {
        $owner = [];
        foreach ($recordings as $number => $recording) {
            foreach ($recording['parts'] as $part) {
                $owner[self::stem($part)] = $number;
            }
        }
        foreach ($others as $other) {
            $number = $owner[self::stem($other)] ?? null;
            if ($number !== null && in_array(strtolower(pathinfo($other, PATHINFO_EXTENSION)), self::SIDECARS, true)) {
                $recordings[$number]['sidecars'][] = $other;
            }
        }

        return $recordings;
    }

    private static function stem(string $path): string
    {
        return strtolower(dirname($path) . '/' . pathinfo($path, PATHINFO_FILENAME));
    }
}
