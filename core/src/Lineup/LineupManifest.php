<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Lineup\Exception\InvalidLineup;
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
        if (! is_array($manifest) || ! is_array($manifest['clips'] ?? null)) {
            throw InvalidLineup::manifest('is not JSON with a list of clips');
        }
        $ways = $manifest['ways'] ?? ['sound', 'timecode'];
        if (! is_array($ways) || $ways === []) {
            throw InvalidLineup::manifest('names no way');
        }
        $ways = array_map(static fn (mixed $way): Way => Way::parse(is_string($way) ? $way : gettype($way)), array_values($ways));
        $clips = $strays = [];
        foreach (array_values($manifest['clips']) as $index => $entry) {
            foreach (['id', 'device', 'path'] as $field) {
                if (! is_array($entry) || ! is_string($entry[$field] ?? null) || $entry[$field] === '') {
                    throw InvalidLineup::clip($index, 'has no '.$field);
                }
            }
            if (isset($clips[$entry['id']]) || isset($strays[$entry['id']])) {
                throw InvalidLineup::clip($entry['id'], 'is there twice');
            }
            try {
                $clips[$entry['id']] = self::clip($entry, $base);
            } catch (UnableToReadMedia $trouble) {
                $strays[$entry['id']] = $trouble->getMessage();
            }
        }
        $result = Lineup::of(array_values($clips), $ways);

        return new LineupResult($result->zero, $result->lanes, $result->placements, $strays + $result->strays, $result->deviceOffsets);
    }

    /** @param  array<string, mixed>  $entry */
    private static function clip(array $entry, string $base): LineupClip
    {
        $path = str_starts_with($entry['path'], '/') ? $entry['path'] : $base.'/'.$entry['path'];
        $info = Probe::file($path);
        if (! in_array($info->kind, ['picture', 'sound'], true) || $info->durationTicks === null) {
            throw UnableToReadMedia::program('The probe', $path, $info->problems[0] ?? 'it is neither picture nor sound');
        }
        $start = $entry['start_ticks'] ?? null;
        $created = $entry['created_at'] ?? $info->createdAt;
        if (($start !== null && ! is_int($start)) || ($created !== null && ! is_string($created))) {
            throw InvalidLineup::clip($entry['id'], 'has a start_ticks that is not a whole number, or a created_at that is not text');
        }

        return new LineupClip(
            $entry['id'],
            $entry['device'],
            $info->kind === 'sound',
            $info->durationTicks,
            $start ?? $info->startTicks,
            self::recorded($created, $entry['id']),
            self::sound($info),
        );
    }

    /** @return (\Closure(): GuideTrack)|null */
    public static function sound(MediaInfo $info): ?\Closure
    {
        $channels = $info->audioStreams[0] ?? 0;

        return $channels > 0 ? static fn (): GuideTrack => GuideTrack::decode($info->path, $channels) : null;
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
