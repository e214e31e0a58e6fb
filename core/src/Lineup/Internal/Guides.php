<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\MediaInfo;
use Cartella\Core\Process;
use Cartella\Core\Sound\GuideTrack;

/**
 * Makes the guide sound of many files, two at a time in processes of their own: decoding and listening for what stands
 * out take most of a line-up that begins from nothing.
 *
 * @internal
 */
final class Guides
{
    private const AT_ONCE = 2;

    /**
     * @param  array<string, MediaInfo>  $infos  by clip
     * @param  string  $folder  gets a few files for each clip, 16.2 kB a second
     * @return array<string, \Closure(): GuideTrack> of clips that have sound; one whose file cannot be decoded throws
     */
    public static function make(array $infos, string $folder): array
    {
        $infos = array_filter($infos, static fn(MediaInfo $info): bool => array_sum($info->audioStreams) > 0);
        // The longest first, so that the last one does not run alone.
        uasort($infos, static fn(MediaInfo $x, MediaInfo $y): int => $y->durationTicks <=> $x->durationTicks);
        $commands = $files = [];
        foreach (array_keys($infos) as $number => $id) {
            $files[$id] = "$folder/$number";
            $commands[$id] = [
                PHP_BINARY,
                '-d',
                'opcache.enable_cli=1',
                '-d',
                'opcache.jit=function',
                '-d',
                'opcache.jit_buffer_size=32M',
                '-d',
                'memory_limit=512M',
                dirname(__DIR__, 3) . '/bin/guide.php',
                $infos[$id]->path,
                implode(',', array_filter($infos[$id]->audioStreams)),
                $files[$id],
            ];
        }
        $sounds = [];
        foreach (Process::several($commands, self::AT_ONCE, 6 * 3600) as $id => $run) {
            $sounds[$id] =
                $run['status'] === 0
                    ? static fn(): GuideTrack => GuideTrack::ofFile($files[$id])
                    : static fn(): GuideTrack => throw UnableToReadMedia::program('ffmpeg', $infos[$id]->path, $run['error']);
        }

        return $sounds;
    }
}
