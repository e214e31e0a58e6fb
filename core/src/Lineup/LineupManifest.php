<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Lineup\Exception\InvalidLineup;
use Cartella\Core\Lineup\Internal\Guides;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\MediaInfo;
use Cartella\Core\Media\Probe;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;

/** Reads the command's manifest of clips and lines them up; a file that cannot be read becomes a stray. */
final class LineupManifest
{
    /**
     * @param  string  $base  folder that relative paths are taken from
     *
     * @throws InvalidLineup if the manifest is not of its shape, or names an unknown way
     */
    public static function run(string $json, string $base): LineupResult
    {
        $manifest = json_decode($json, true);
        if (!is_array($manifest) || !is_array($manifest['clips'] ?? null)) {
            throw InvalidLineup::manifest('is not JSON with a list of clips');
        }
        $ways = $manifest['ways'] ?? ['sound', 'timecode'];
        if (!is_array($ways) || $ways === []) {
            throw InvalidLineup::manifest('names no way');
        }
        $ways = array_map(static fn(mixed $way): Way => Way::parse(is_string($way) ? $way : gettype($way)), array_values($ways));
        $infos = $strays = $entries = [];
        foreach (array_values($manifest['clips']) as $index => $entry) {
            foreach (['id', 'device', 'path'] as $field) {
                if (!is_array($entry) || !is_string($entry[$field] ?? null) || $entry[$field] === '') {
                    throw InvalidLineup::clip($index, 'has no ' . $field);
                }
            }
            if (isset($entries[$entry['id']])) {
                throw InvalidLineup::clip($entry['id'], 'is there twice');
            }
            $entries[$entry['id']] = $entry;
            try {
                $infos[$entry['id']] = self::probe($entry, $base);
            } catch (UnableToReadMedia $trouble) {
                $strays[$entry['id']] = $trouble->getMessage();
            }
        }
        $folder = sys_get_temp_dir() . '/cartella-lineup-' . bin2hex(random_bytes(8));
        mkdir($folder, 0o700);
        try {
            $sounds = in_array(Way::Sound, $ways, true) ? Guides::make($infos, $folder) : [];
            $clips = [];
            foreach ($infos as $id => $info) {
                $clips[] = self::clip($entries[$id], $info, $sounds[$id] ?? null);
            }
            $result = Lineup::of($clips, $ways);
        } finally {
            array_map(unlink(...), glob($folder . '/*') ?: []);
            rmdir($folder);
        }

        return new LineupResult(
            $result->zero,
            $result->lanes,
            $result->placements,
            $strays + $result->strays,
            $result->deviceOffsets,
            $result->recordedOffsets,
            $result->groups,
        );
    }

    /** @param  array<string, mixed>  $entry */
    private static function probe(array $entry, string $base): MediaInfo
    {
        $path = str_starts_with($entry['path'], '/') ? $entry['path'] : $base . '/' . $entry['path'];
        $info = Probe::file($path);
        if (!in_array($info->kind, ['picture', 'sound'], true) || $info->durationTicks === null) {
            throw UnableToReadMedia::program('The probe', $path, $info->problems[0] ?? 'it is neither picture nor sound');
        }

        return $info;
    }

    /**
     * @param  array<string, mixed>  $entry
     * @param  (\Closure(): GuideTrack)|null  $sound
     */
    private static function clip(array $entry, MediaInfo $info, ?\Closure $sound): LineupClip
    {
        $start = $entry['start_ticks'] ?? null;
        $created = $entry['created_at'] ?? $info->createdAt;
        if (($start !== null && !is_int($start)) || ($created !== null && !is_string($created))) {
            throw InvalidLineup::clip($entry['id'], 'has a start_ticks that is not a whole number, or a created_at that is not text');
        }
        $marks = $entry['marks'] ?? [];
        $points = is_array($marks) ? [...array_values($marks), $entry['in_ticks'] ?? 0, $entry['out_ticks'] ?? 0] : [$marks];
        if (array_filter($points, static fn(mixed $ticks): bool => !is_int($ticks)) !== []) {
            throw InvalidLineup::clip($entry['id'], 'has a mark, in_ticks or out_ticks that is not a whole number');
        }

        return new LineupClip(
            $entry['id'],
            $entry['device'],
            $info->kind === 'sound',
            $info->durationTicks,
            $start ?? $info->startTicks,
            self::recorded($created, $entry['id']),
            $sound,
            null,
            $marks + array_column($info->markers, 'ticks', 'name'),
            $entry['in_ticks'] ?? null,
            $entry['out_ticks'] ?? null,
            is_string($entry['take'] ?? null) ? $entry['take'] : null,
        );
    }

    private static function recorded(?string $created, string $id): ?int
    {
        if ($created === null || strlen($created) <= 10) {
            return null;
        }
        try {
            return (new \DateTimeImmutable($created, new \DateTimeZone('UTC')))->getTimestamp() * Ticks::PER_SECOND;
        } catch (\Exception) {
            throw InvalidLineup::clip($id, 'has a created_at that is not a date');
        }
    }
}
