<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Media\Exception\UnableToReadMedia;

/**
 * Reads the chunks of RIFF, RF64 and BW64 WAV files (EBU Tech 3285, 3306; ITU-R BS.2088) of any size.
 *
 * Walks chunk headers and reads only the small chunks whole, so memory does not grow with the file. No size in the
 * file is believed: a chunk that claims more than is there is cut to the file's end and reported.
 */
final class WavReader
{
    /** Largest metadata chunk that is read; a longer one is skipped and reported. */
    private const CHUNK_LIMIT = 8 << 20;

    private const SIZE_IN_DS64 = 0xffffffff;

    /** @var list<string> */
    private array $problems = [];

    /** @var array<string, int> sizes from the ds64 chunk, by chunk name, bytes */
    private array $wideSizes = [];

    /** @var array<string, string> raw small chunks by name; the first of a name counts */
    private array $chunks = [];

    private ?WavFormat $format = null;

    private ?int $dataOffset = null;

    private int $dataBytes = 0;

    private bool $isWhole = true;

    /** @param  resource  $stream */
    private function __construct(private readonly string $path, private $stream, private readonly int $size) {}

    /**
     * @throws UnableToReadMedia if the file cannot be opened, is not a WAV, or has no readable format or data chunk
     */
    public static function read(string $path): WavFile
    {
        $stream = is_file($path) ? @fopen($path, 'rb') : false;
        if ($stream === false) {
            throw UnableToReadMedia::missing($path);
        }
        try {
            $reader = new self($path, $stream, (int) fstat($stream)['size']);

            return $reader->walk();
        } finally {
            fclose($stream);
        }
    }

    public static function isWav(string $path): bool
    {
        $head = is_file($path) ? (string) @file_get_contents($path, false, null, 0, 12) : '';

        return strlen($head) === 12 && substr($head, 8) === 'WAVE' && in_array(substr($head, 0, 4), ['RIFF', 'RF64', 'BW64'], true);
    }

    private function walk(): WavFile
    {
        $head = (string) fread($this->stream, 12);
        if (strlen($head) < 12 || substr($head, 8) !== 'WAVE' || !in_array(substr($head, 0, 4), ['RIFF', 'RF64', 'BW64'], true)) {
            throw UnableToReadMedia::notWav($this->path, substr($head, 0, 4));
        }
        for ($offset = 12; $offset + 8 <= $this->size; ) {
            fseek($this->stream, $offset);
            $header = (string) fread($this->stream, 8);
            if (strlen($header) < 8) {
                break;
            }
            $name = substr($header, 0, 4);
            $claimed = unpack('V', $header, 4)[1];
            if ($claimed === self::SIZE_IN_DS64 && isset($this->wideSizes[$name])) {
                $claimed = $this->wideSizes[$name];
            }
            $there = min($claimed, $this->size - $offset - 8);
            if ($there < $claimed && !($name === 'data' && $claimed >= self::SIZE_IN_DS64 - 1)) {
                $this->isWhole = false;
                $this->problems[] = sprintf(
                    'Chunk "%s" at byte %d claims %d bytes, the file ends after %d.',
                    UnableToReadMedia::quote($name),
                    $offset,
                    $claimed,
                    $there,
                );
            }
            $this->take($name, $offset, $there);
            $offset += 8 + $claimed + ($claimed % 2); // chunks of odd length carry a pad byte that their size leaves out
        }

        return $this->result();
    }

    private function take(string $name, int $offset, int $bytes): void
    {
        if ($name === 'data') {
            if ($this->dataOffset === null) {
                $this->dataOffset = $offset + 8;
                $this->dataBytes = $bytes;
            }

            return;
        }
        if (!in_array($name, ['fmt ', 'ds64', 'bext', 'iXML', 'cue ', 'LIST'], true)) {
            return;
        }
        if ($bytes > self::CHUNK_LIMIT) {
            $this->problems[] = sprintf('Chunk "%s" at byte %d is %d bytes long and was not read.', $name, $offset, $bytes);

            return;
        }
        $content = $bytes > 0 ? (string) stream_get_contents($this->stream, $bytes) : '';
        match ($name) {
            'fmt ' => ($this->format ??= $this->formatOf($content, $offset)),
            'ds64' => $this->wideSizes($content),
            'LIST' => str_starts_with($content, 'adtl') ? ($this->chunks['adtl'] ??= $content) : null,
            default => ($this->chunks[$name] ??= $content),
        };
    }

    private function wideSizes(string $content): void
    {
        if (strlen($content) < 28) {
            $this->problems[] = 'The ds64 chunk is cut short.';

            return;
        }
        $sizes = unpack('Priff/Pdata/Psamples/Vcount', $content);
        $this->wideSizes['data'] = max(0, $sizes['data']);
        for ($i = 0, $at = 28; $i < $sizes['count'] && $at + 12 <= strlen($content); $i++, $at += 12) {
            $this->wideSizes[substr($content, $at, 4)] = max(0, unpack('P', $content, $at + 4)[1]);
        }
    }

    private function formatOf(string $content, int $offset): WavFormat
    {
        if (strlen($content) < 16) {
            throw UnableToReadMedia::chunk($this->path, 'fmt ', $offset, 'is cut short');
        }
        $field = unpack('vtag/vchannels/Vrate/Vspeed/vblock/vbits', $content);
        $mask = 0;
        if ($field['tag'] === 0xfffe && strlen($content) >= 40) {
            $mask = unpack('V', $content, 20)[1];
            $field['tag'] = unpack('v', $content, 24)[1]; // the sub-format GUID begins with the plain tag
        }
        $format = new WavFormat($field['tag'], $field['channels'], $field['rate'], $field['bits'], $field['block'], $mask);
        if (!$format->isReadable()) {
            throw UnableToReadMedia::coding(
                $this->path,
                sprintf('tag %d, %d channels, %d bit, %d Hz', $field['tag'], $field['channels'], $field['bits'], $field['rate']),
            );
        }

        return $format;
    }

    private function result(): WavFile
    {
        if ($this->format === null) {
            throw UnableToReadMedia::chunk($this->path, 'fmt ', 12, 'is missing');
        }
        if ($this->dataOffset === null) {
            // What was written before the samples is told all the same: when it began, and what the recorder noted.
            $this->problems[] = 'The file has no samples: its data chunk is missing.';
            $this->isWhole = false;
        }
        $ixml = null;
        if (isset($this->chunks['iXML'])) {
            $ixml = Ixml::parse($this->chunks['iXML'], $this->problems);
        }

        return new WavFile(
            $this->path,
            $this->format,
            $this->dataOffset ?? $this->size,
            $this->dataBytes - ($this->dataBytes % $this->format->frameBytes),
            isset($this->chunks['bext']) ? $this->bext($this->chunks['bext']) : null,
            $ixml,
            $this->markers(),
            $this->problems,
            $this->isWhole,
        );
    }

    /** @return array<string, int|float|string>|null */
    private function bext(string $content): ?array
    {
        if (strlen($content) < 346) {
            $this->problems[] = 'The bext chunk is cut short.';

            return null;
        }
        $text = static fn(int $at, int $length): string => Text::utf8(
            rtrim(strtok(substr($content, $at, $length) . "\0", "\0") ?: '', " \r\n"),
        );
        $time = unpack('P', $content, 338)[1];
        if ($time < 0) {
            $this->problems[] = 'The bext time reference is out of range.';
            $time = 0;
        }

        return [
            'description' => $text(0, 256),
            'originator' => $text(256, 32),
            'originator_reference' => $text(288, 32),
            'date' => $text(320, 10),
            'time' => $text(330, 8),
            'time_reference' => $time,
            'version' => strlen($content) >= 348 ? unpack('v', $content, 346)[1] : 0,
            ...self::loudness($content),
            'coding_history' => strlen($content) > 602 ? Text::utf8(rtrim(substr($content, 602), "\0\r\n")) : '',
        ];
    }

    /**
     * Loudness of version 2 (EBU Tech 3285 v2): LUFS, LU and dBTP.
     *
     * @return array<string, float>
     */
    private static function loudness(string $content): array
    {
        if (strlen($content) < 422 || unpack('v', $content, 346)[1] < 2) {
            return [];
        }
        $found = [];
        $names = ['loudness_value', 'loudness_range', 'max_true_peak', 'max_momentary', 'max_short_term'];
        foreach (array_values(unpack('v5', $content, 412) ?: []) as $at => $raw) {
            // What the standard has for a value that nobody measured.
            if ($raw !== 0x7fff) {
                $found[$names[$at]] = ($raw > 0x7fff ? $raw - 0x10000 : $raw) / 100;
            }
        }

        return $found;
    }

    /** @return list<array{sample: int, label: string, length: int|null}> */
    private function markers(): array
    {
        $cue = $this->chunks['cue '] ?? '';
        if (strlen($cue) < 4) {
            return [];
        }
        [$labels, $lengths] = $this->cueTexts($this->chunks['adtl'] ?? '');
        $markers = [];
        $count = min(unpack('V', $cue)[1], intdiv(strlen($cue) - 4, 24));
        for ($i = 0; $i < $count; $i++) {
            $point = unpack('Vid/Vposition/a4chunk/Vstart/Vblock/Voffset', $cue, 4 + 24 * $i);
            $markers[] = ['sample' => $point['offset'], 'label' => $labels[$point['id']] ?? '', 'length' => $lengths[$point['id']] ?? null];
        }
        usort($markers, static fn(array $a, array $b): int => $a['sample'] <=> $b['sample']);

        return $markers;
    }

    /** @return array{array<int, string>, array<int, int>} labels and lengths in samples, by cue id */
    private function cueTexts(string $list): array
    {
        $labels = $lengths = [];
        for ($at = 4; $at + 12 <= strlen($list); ) {
            $name = substr($list, $at, 4);
            ['size' => $size, 'id' => $id] = unpack('Vsize/Vid', $list, $at + 4);
            if ($name === 'labl') {
                $labels[$id] = Text::utf8(rtrim(substr($list, $at + 12, max(0, min($size, strlen($list)) - 4)), "\0"));
            } elseif ($name === 'ltxt' && $size >= 8 && $at + 16 <= strlen($list)) {
                $lengths[$id] = unpack('V', $list, $at + 12)[1];
            }
            $at += 8 + $size + ($size % 2);
        }

        return [$labels, $lengths];
    }
}
