<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Process;

/** Makes the peaks of all channels of a file's sound in one streaming pass; the format is described at {@see Peaks}. */
final class PeakFile
{
    /**
     * @return array{channels: int, buckets: int, bucket_samples: int, levels: int}
     *
     * @throws UnableToReadMedia if the file has no sound, or cannot be decoded or written
     */
    public static function make(string $file, string $out): array
    {
        $info = Probe::file($file);
        $streams = $info->audioStreams;
        if (array_sum($streams) < 1 || $info->sampleRate === null) {
            throw UnableToReadMedia::program('The probe', $file, $info->problems[0] ?? 'it has no sound');
        }
        if (!is_dir(dirname($out)) || !is_writable(dirname($out))) {
            throw UnableToReadMedia::missing($out);
        }
        $peaks = new Peaks(array_sum($streams), $info->sampleRate);
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input($file),
                ...count($streams) === 1
                    ? ['-map', '0:a:0']
                    : ['-filter_complex', SoundStreams::together($streams, $info->sampleRate) . '[all]', '-map', '[all]'],
                ...['-f', 's16le', '-'],
            ],
            $peaks->feed(...),
            limitSeconds: 6 * 3600,
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $file, $run['error']);
        }

        return $peaks->finish($out);
    }
}
