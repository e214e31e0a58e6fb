<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * The outermost boxes of a QuickTime or MP4 file (ISO/IEC 14496-12), walked without reading the media: whether the
 * camera closed the file, and when it says it was made. No size in the file is believed.
 */
final readonly class MovieHead
{
    private const BOX_LIMIT = 10_000;

    /** Seconds from 1904-01-01, where such files count from, to 1970-01-01. */
    private const EPOCH = 2_082_844_800;

    /**
     * @param  bool  $isWhole  every box ends inside the file, and one of them is the index (`moov`)
     * @param  int|null  $createdAt  Unix seconds; null where the file says none
     */
    private function __construct(public bool $isWhole, public ?int $createdAt) {}

    /** @return self|null null when the file cannot be opened */
    public static function read(string $file): ?self
    {
        $stream = @fopen($file, 'rb');
        if ($stream === false) {
            return null;
        }
        stream_set_read_buffer($stream, 0);
        $size = (int) (fstat($stream)['size'] ?? 0);
        $index = null;
        $at = 0;
        for ($boxes = 0; $at < $size && $boxes < self::BOX_LIMIT; $boxes++) {
            $box = self::box($stream, $at, $size);
            if ($box === null) {
                break;
            }
            if ($box['type'] === 'moov') {
                $index = $box;
            }
            $at = $box['end'];
        }
        $created = $index === null ? null : self::createdAt($stream, $index);
        fclose($stream);

        return new self($index !== null && $at === $size, $created);
    }

    /**
     * @param  resource  $stream
     * @return array{type: string, start: int, end: int}|null null when there is no box, or it claims more than is there
     */
    private static function box($stream, int $at, int $limit): ?array
    {
        fseek($stream, $at);
        $head = (string) @fread($stream, 16);
        if (strlen($head) < 8) {
            return null;
        }
        $length = unpack('N', $head)[1];
        $start = $at + 8;
        if ($length === 1 && strlen($head) === 16) {
            $length = unpack('J', $head, 8)[1];
            $start += 8;
        } elseif ($length === 0) {
            $length = $limit - $at;
        }
        $end = $at + $length;

        return $length < $start - $at || $end > $limit || $end < $at
            ? null
            : ['type' => substr($head, 4, 4), 'start' => $start, 'end' => $end];
    }

    /**
     * @param  resource  $stream
     * @param  array{type: string, start: int, end: int}  $index
     */
    private static function createdAt($stream, array $index): ?int
    {
        $at = $index['start'];
        for ($boxes = 0; $at < $index['end'] && $boxes < self::BOX_LIMIT; $boxes++) {
            $box = self::box($stream, $at, $index['end']);
            if ($box === null) {
                return null;
            }
            if ($box['type'] === 'mvhd') {
                fseek($stream, $box['start']);
                $head = (string) @fread($stream, 12);
                if (strlen($head) < 12) {
                    return null;
                }
                $seconds = ord($head[0]) === 1 ? unpack('J', $head, 4)[1] : unpack('N', $head, 4)[1];

                return $seconds === 0 ? null : $seconds - self::EPOCH;
            }
            $at = $box['end'];
        }

        return null;
    }
}
