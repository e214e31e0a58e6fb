<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Process;

/**
 * How ffmpeg and ffprobe are started on files that others made: with a list of the containers that may be opened, so that
 * a playlist or a script in a movie's clothes opens nothing; without network; with bounds on memory, output and
 * priority, on top of the time limit of {@see \Cartella\Core\Process}.
 */
final class Ffmpeg
{
    /** Containers of cameras, recorders and stock; none of them names other files that would be followed. */
    private const FORMATS = 'mov,matroska,avi,mxf,mpegts,mpeg,dv,wav,w64,aiff,caf,flac,mp3,ogg,aac,gif';

    /**
     * Still pictures, by what they begin with. Named to ffmpeg, since its own choice by extension would also read numbered
     * neighbours of a file.
     */
    private const STILLS = [
        "\x89PNG" => 'png_pipe',
        "\xFF\xD8\xFF" => 'jpeg_pipe',
        "II*\0" => 'tiff_pipe',
        "MM\0*" => 'tiff_pipe',
        'BM' => 'bmp_pipe',
        "v/1\x01" => 'exr_pipe',
        'SDPX' => 'dpx_pipe',
        'XPDS' => 'dpx_pipe',
    ];

    /** Bytes of address space: a frame of 8K in flight on every core, and no more. */
    private const MEMORY = 6 << 30;

    /** Bytes of one file that it writes. */
    private const OUTPUT = 256 << 30;

    /** @return list<string> the program with its bounds, before its inputs */
    public static function command(): array
    {
        return [...self::bounds(), 'ffmpeg', '-v', 'error', '-nostdin', '-y'];
    }

    /**
     * One input.
     *
     * @param  list<string>  $options  of this input, such as where to begin
     * @return list<string>
     */
    public static function input(string $path, array $options = []): array
    {
        return [...self::reading($path), ...$options, '-i', 'file:' . $path];
    }

    /**
     * Samples that were written before, 16-bit little-endian, as an input.
     *
     * @return list<string>
     */
    public static function samples(string $path, int $rate, int $channels): array
    {
        return [
            ...['-protocol_whitelist', 'file', '-f', 's16le', '-ar', (string) $rate, '-ac', (string) $channels],
            ...['-i', 'file:' . $path],
        ];
    }

    /**
     * The parts of one recording as one input: numbered links of our own in a folder of ours, so that no name of a card
     * stands in the list and the list can name nothing else.
     *
     * @param  non-empty-list<string>  $paths
     * @param  string  $folder  an empty folder, to be removed afterwards
     * @return list<string>
     */
    public static function inputOfParts(array $paths, string $folder): array
    {
        $list = "ffconcat version 1.0\n";
        foreach ($paths as $number => $path) {
            if (!@symlink($path, sprintf('%s/%06d', $folder, $number))) {
                throw Exception\UnableToReadMedia::missing($path);
            }
            $list .= sprintf("file %06d\n", $number);
        }
        file_put_contents($folder . '/parts', $list);

        return [
            '-protocol_whitelist',
            'file,pipe',
            '-format_whitelist',
            'concat,' . self::FORMATS,
            '-f',
            'concat',
            '-safe',
            '1',
            '-i',
            'file:' . $folder . '/parts',
        ];
    }

    /**
     * @param  list<string>  $show  what is asked
     * @return list<string>
     */
    public static function probe(string $path, array $show): array
    {
        return [...self::bounds(), 'ffprobe', '-v', 'error', ...self::reading($path), '-of', 'json', ...$show, '--', 'file:' . $path];
    }

    /** @return list<string> */
    private static function reading(string $path): array
    {
        $still = self::stillFormat($path);

        return ['-protocol_whitelist', 'file,pipe', '-format_whitelist', $still ?? self::FORMATS, ...$still === null ? [] : ['-f', $still]];
    }

    private static function stillFormat(string $path): ?string
    {
        $head = is_file($path) ? (string) @file_get_contents($path, false, null, 0, 12) : '';
        if (str_starts_with($head, 'RIFF') && substr($head, 8) === 'WEBP') {
            return 'webp_pipe';
        }
        foreach (self::STILLS as $start => $format) {
            if (str_starts_with($head, $start)) {
                return $format;
            }
        }

        return null;
    }

    /** @return list<string> */
    private static function bounds(): array
    {
        return Process::bounds(self::MEMORY, self::OUTPUT);
    }
}
