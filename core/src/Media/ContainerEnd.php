<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * Whether a camera finished writing a file, told from its container without decoding: MXF (SMPTE ST 377-1), MPEG-2
 * transport streams with or without time stamps (ISO/IEC 13818-1), AVI. No size in the file is believed.
 *
 * QuickTime and MP4 are {@see MovieHead}'s, WAV is {@see WavReader}'s.
 */
final class ContainerEnd
{
    /** A header partition may come after a run-in of this many bytes (ST 377-1, 6.5). */
    private const RUN_IN = 65_536;

    private const PARTITION = "\x06\x0E\x2B\x34\x02\x05\x01\x01\x0D\x01\x02\x01\x01";

    private const HEADER_KIND = "\x02";

    private const FOOTER_KIND = "\x04";

    private const INDEX_PACK = self::PARTITION . "\x11\x01\x00";

    /** Of a transport stream, so much of its end is looked at: a frame of any camera begins in it. */
    private const TAIL = 4 << 20;

    /** @return bool|null null for containers whose end tells nothing here, and for files that are no such container */
    public static function isWhole(string $file): ?bool
    {
        $look = match (strtolower(pathinfo($file, PATHINFO_EXTENSION))) {
            'mxf' => self::mxf(...),
            'mts', 'm2ts' => self::transportStream(...),
            'avi' => self::avi(...),
            default => null,
        };
        $stream = $look === null ? false : @fopen($file, 'rb');
        if ($look === null || $stream === false) {
            return null;
        }
        $whole = $look($stream, (int) (fstat($stream)['size'] ?? 0));
        fclose($stream);

        return $whole;
    }

    /** @param  resource  $stream */
    private static function at($stream, int $offset, int $bytes): string
    {
        return fseek($stream, max(0, $offset)) === 0 ? (string) @stream_get_contents($stream, $bytes) : '';
    }

    /**
     * A finished file ends with a footer partition, to which its header or the index pack at its end points.
     *
     * @param  resource  $stream
     */
    private static function mxf($stream, int $size): bool
    {
        $head = self::at($stream, 0, self::RUN_IN + 128);
        $header = strpos($head, self::PARTITION . self::HEADER_KIND);
        if ($header === false) {
            return false;
        }
        if (str_contains(self::at($stream, $size - self::RUN_IN, self::RUN_IN), self::INDEX_PACK)) {
            return true;
        }
        $length = ord($head[$header + 16] ?? "\0");
        $value = $header + 17 + ($length & 0x80 ? $length & 0x7f : 0);
        $footer = strlen($head) >= $value + 32 ? unpack('J', $head, $value + 24)[1] : 0;

        return $footer > 0 &&
            $footer < $size - $header &&
            str_starts_with(self::at($stream, $header + $footer, 14), self::PARTITION . self::FOOTER_KIND);
    }

    /**
     * A finished stream ends with a packet, and the last unit of each of its streams is there to its end.
     *
     * @param  resource  $stream
     */
    private static function transportStream($stream, int $size): ?bool
    {
        $head = self::at($stream, 0, 3 * 192);
        foreach ([[188, 0], [192, 4]] as [$length, $lead]) {
            if (($head[$lead] ?? '') !== 'G' || ($head[$lead + $length] ?? '') !== 'G') {
                continue;
            }
            if ($size % $length !== 0) {
                return false;
            }
            $tail = min($size, intdiv(self::TAIL, $length) * $length);

            return self::unitsEnd(self::at($stream, $size - $tail, $tail), $length, $lead);
        }

        return null;
    }

    private static function unitsEnd(string $packets, int $length, int $lead): bool
    {
        /** @var array<int, array{want: int, has: int, filled: bool}> $units by packet identifier */
        $units = [];
        for ($at = $lead; $at + 188 <= strlen($packets); $at += $length) {
            if ($packets[$at] !== 'G') {
                return false;
            }
            $identifier = unpack('n', $packets, $at + 1)[1];
            $control = (ord($packets[$at + 3]) >> 4) & 3;
            $skip = $control & 2 ? 1 + ord($packets[$at + 4]) : 0;
            $payload = substr($packets, $at + 4 + $skip, 184 - min(184, $skip));
            if ($control & 1 && $identifier & 0x4000 && str_starts_with($payload, "\0\0\1") && strlen($payload) >= 6) {
                $want = unpack('n', $payload, 4)[1];
                $units[$identifier & 0x1fff] = ['want' => $want === 0 ? 0 : $want + 6, 'has' => 0, 'filled' => false];
            }
            if (isset($units[$identifier & 0x1fff])) {
                $units[$identifier & 0x1fff]['has'] += strlen($payload);
                $units[$identifier & 0x1fff]['filled'] = $skip > 1; // what is left of the last packet is filled up before it
            }
        }
        foreach ($units as $unit) {
            if ($unit['want'] === 0 ? !$unit['filled'] : $unit['has'] < $unit['want']) {
                return false;
            }
        }

        return true;
    }

    /**
     * Every outermost chunk ends inside the file, and the first says how long it is.
     *
     * @param  resource  $stream
     */
    private static function avi($stream, int $size): bool
    {
        for ($at = 0; $at + 12 <= $size; ) {
            $head = self::at($stream, $at, 12);
            $length = strlen($head) === 12 ? unpack('V', $head, 4)[1] : 0;
            if (substr($head, 0, 4) !== 'RIFF' || $length < 4 || $at + 8 + $length > $size) {
                return $at > 0 && substr($head, 0, 4) !== 'RIFF';
            }
            $at += 8 + $length + ($length % 2);
        }

        return $at > 0;
    }
}
