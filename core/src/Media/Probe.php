<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Process;
use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Cartella\Core\Time\TimeOfDay;

/** Looks into a file: WAV by our own reader, everything else by ffprobe. Trouble inside a file is reported, not thrown. */
final class Probe
{
    private const STILL_FORMATS = ['image2', 'png_pipe', 'jpeg_pipe', 'tiff_pipe', 'bmp_pipe', 'webp_pipe', 'gif', 'exr_pipe', 'dpx_pipe'];

    /** Formats in which ffmpeg would show any text as pictures. */
    private const TEXT_FORMATS = ['tty', 'txd', 'bin', 'xbin', 'adf', 'idf'];

    /** @throws UnableToReadMedia if the file cannot be opened at all */
    public static function file(string $path): MediaInfo
    {
        $stream = is_file($path) ? @fopen($path, 'rb') : false;
        if ($stream === false) {
            throw UnableToReadMedia::missing($path);
        }
        $empty = fstat($stream)['size'] === 0;
        fclose($stream);
        if ($empty) {
            return new MediaInfo($path, 'other', problems: ['The file is empty.']);
        }
        if (WavReader::isWav($path)) {
            try {
                return self::wav(WavReader::read($path));
            } catch (UnableToReadMedia $trouble) {
                if ($trouble->problemCode() !== UnableToReadMedia::CODING) {
                    return new MediaInfo($path, 'other', problems: [$trouble->getMessage()]);
                }
            }
        }

        return self::container($path);
    }

    private static function wav(WavFile $wav): MediaInfo
    {
        $rate = $wav->ixml?->timecodeRate();
        $sampleRate = $wav->format->sampleRate;
        [$start, $source] = match (true) {
            isset($wav->bext['time_reference']) => [TimeOfDay::ofTimeReference($wav->bext['time_reference'], $sampleRate), 'bext'],
            isset($wav->ixml->speed['samples_since_midnight']) => [
                TimeOfDay::ofTimeReference(
                    $wav->ixml->speed['samples_since_midnight'],
                    max(1, $wav->ixml->speed['sample_rate'] ?? $sampleRate),
                ),
                'ixml',
            ],
            default => [null, null],
        };
        $at = static fn(int $sample): int => Ticks::ofSamples($sample, $sampleRate);

        return new MediaInfo(
            $wav->path,
            'sound',
            durationTicks: $at($wav->frames()),
            rate: $rate,
            startTicks: $start,
            startTimecode: $start !== null && $rate !== null ? Timecode::label(Ticks::toFrames($start, $rate), $rate) : null,
            startSource: $source,
            createdAt: self::bextDate($wav->bext),
            sampleRate: $sampleRate,
            channels: ChannelNames::ofWav($wav),
            audioStreams: [$wav->format->channels],
            ixml: $wav->ixml,
            bext: $wav->bext,
            markers: array_map(
                static fn(array $marker): array => [
                    'ticks' => $at($marker['sample']),
                    'name' => $marker['label'],
                    'duration_ticks' => $marker['length'] === null ? null : $at($marker['length']),
                ],
                $wav->markers,
            ),
            syncPoints: array_map(
                static fn(array $point): array => [
                    'ticks' => $at($point['sample']),
                    'type' => $point['type'],
                    'function' => $point['function'],
                    'comment' => $point['comment'],
                ],
                $wav->ixml->syncPoints ?? [],
            ),
            problems: $wav->problems,
        );
    }

    /**
     * When a recorder says it began, ISO 8601 without a zone.
     *
     * @param  array<string, int|float|string>|null  $bext
     */
    public static function bextDate(?array $bext): ?string
    {
        if (
            preg_match('/\A(\d{4})\D(\d{2})\D(\d{2})\z/', (string) ($bext['date'] ?? ''), $date) !== 1 ||
            !checkdate((int) $date[2], (int) $date[3], (int) $date[1])
        ) {
            return null;
        }
        $day = "$date[1]-$date[2]-$date[3]";
        $hasTime = preg_match('/\A([01]\d|2[0-3])\D([0-5]\d)\D([0-5]\d)\z/', (string) ($bext['time'] ?? ''), $time) === 1;

        return $hasTime ? "{$day}T$time[1]:$time[2]:$time[3]" : $day;
    }

    private static function container(string $path): MediaInfo
    {
        $facts = self::ffprobe($path, ['-show_streams', '-show_format']);
        if (!is_array($facts)) {
            return new MediaInfo($path, 'other', problems: [$facts]);
        }
        $streams = $facts['streams'] ?? [];
        $format = $facts['format'] ?? [];
        $of = static fn(string $type): array => array_values(
            array_filter(
                $streams,
                static fn(array $stream): bool => ($stream['codec_type'] ?? '') === $type &&
                    ($stream['disposition']['attached_pic'] ?? 0) !== 1,
            ),
        );
        $picture = $of('video')[0] ?? null;
        $sounds = $of('audio');
        $formats = explode(',', (string) ($format['format_name'] ?? ''));
        if (array_intersect($formats, self::TEXT_FORMATS) !== []) {
            return new MediaInfo($path, 'other', problems: ['It is text, not picture or sound.']);
        }
        $still = $picture !== null && $sounds === [] && array_intersect($formats, self::STILL_FORMATS) !== [];
        $problems = [];
        $rate = $picture !== null && !$still ? self::rate($picture) ?? self::constant($picture) : null;
        $frames = $rate !== null ? self::frames($path, $picture, $problems) : null;
        $seconds = (float) ($picture['duration'] ?? ($format['duration'] ?? 0));
        $isVariable = $rate !== null && $frames !== null && self::isVariable($picture, $rate, $frames, $seconds);
        if ($isVariable) {
            // Phones and screens write a frame when they have one: the file's own length counts, and proxies are of a constant rate.
            $rate = self::constant($picture) ?? $rate;
            $frames = max(1, (int) round(($seconds * $rate->num) / $rate->den));
        }
        [$start, $label, $source, $rate] = $still ? [null, null, null, null] : self::start($streams, $picture, $format, $rate, $problems);
        $duration = match (true) {
            $still => null,
            $frames !== null && $rate !== null => Ticks::ofFrames($frames, $rate),
            isset($format['duration']) => Ticks::ofSeconds((float) $format['duration']),
            default => null,
        };
        if ($picture !== null && !$still && $rate === null) {
            $problems[] = sprintf(
                'The frame rate %s is not one that is known here.',
                UnableToReadMedia::quote((string) ($picture['r_frame_rate'] ?? '?')),
            );
        }

        return new MediaInfo(
            $path,
            match (true) {
                $still => 'still',
                $picture !== null => 'picture',
                $sounds !== [] => 'sound',
                default => 'other',
            },
            durationTicks: $duration,
            rate: $rate,
            frames: $frames,
            startTicks: $start,
            startTimecode: $label,
            startSource: $source,
            createdAt: self::createdAt($format, $streams),
            width: $picture['width'] ?? null,
            height: $picture['height'] ?? null,
            rotation: self::rotation($picture ?? []),
            sampleRate: isset($sounds[0]['sample_rate']) ? (int) $sounds[0]['sample_rate'] : null,
            channels: self::channels($sounds),
            audioStreams: array_map(static fn(array $sound): int => (int) ($sound['channels'] ?? 0), $sounds),
            tape: self::tag([...$streams, $format], 'reel_name'),
            problems: $problems,
            isVariable: $isVariable,
        );
    }

    /**
     * @param  list<string>  $show
     * @return array<string, mixed>|string the answer, or why there is none
     */
    private static function ffprobe(string $path, array $show): array|string
    {
        $run = Process::run(Ffmpeg::probe($path, $show), limitSeconds: 120);
        $answer = $run['status'] === 0 ? json_decode($run['output'], true) : null;
        if (!is_array($answer)) {
            $why = trim((string) strrchr("\n" . $run['error'], "\n"));
            $why = str_replace('file:' . $path . ': ', '', $why);

            return sprintf('No picture or sound could be read (%s).', UnableToReadMedia::quote($why === '' ? 'unknown format' : $why));
        }

        return $answer;
    }

    /** @param  array<string, mixed>  $picture */
    private static function rate(array $picture): ?FrameRate
    {
        foreach (['r_frame_rate', 'avg_frame_rate'] as $field) {
            if (preg_match('/\A(\d{1,9})\/([1-9]\d{0,8})\z/', (string) ($picture[$field] ?? ''), $part) === 1) {
                $rate = FrameRate::near((int) $part[1] / (int) $part[2]);
                if ($rate !== null) {
                    return $rate;
                }
            }
        }

        return null;
    }

    /** @param  array<string, mixed>  $picture */
    private static function isVariable(array $picture, FrameRate $rate, int $frames, float $seconds): bool
    {
        // The last frame's own length is written down in more than one way.
        return $seconds > 0 &&
            abs($seconds - ($frames * $rate->den) / $rate->num) > max((2.5 * $rate->den) / $rate->num, 0.002 * $seconds) &&
            ($picture['r_frame_rate'] ?? '') !== ($picture['avg_frame_rate'] ?? '');
    }

    /**
     * The constant rate at which pictures of a variable one are shown: the known one that is nearest to their mean.
     *
     * @param  array<string, mixed>  $picture
     */
    private static function constant(array $picture): ?FrameRate
    {
        $mean = (string) ($picture['avg_frame_rate'] ?? '');
        $isVariable = $mean !== ($picture['r_frame_rate'] ?? '');
        if (!$isVariable || preg_match('/\A(\d{1,9})\/([1-9]\d{0,8})\z/', $mean, $part) !== 1) {
            return null;
        }
        $mean = (int) $part[1] / (int) $part[2];
        $names = ['23.976', '24', '25', '29.97', '30', '50', '59.94', '60'];
        usort(
            $names,
            static fn(string $x, string $y): int => abs((float) $x - $mean) <=> abs((float) $y - $mean) ?: (float) $y <=> (float) $x,
        );

        return FrameRate::parse($names[0]);
    }

    /**
     * @param  array<string, mixed>  $picture
     * @param  list<string>  $problems
     */
    private static function frames(string $path, array $picture, array &$problems): ?int
    {
        if (isset($picture['nb_frames']) && ctype_digit((string) $picture['nb_frames'])) {
            return (int) $picture['nb_frames'];
        }
        $counted = self::ffprobe($path, ['-count_packets', '-select_streams', 'v:0', '-show_entries', 'stream=nb_read_packets']);
        $count = is_array($counted) ? $counted['streams'][0]['nb_read_packets'] ?? null : null;
        if ($count === null) {
            $problems[] = 'The pictures could not be counted.';
        }

        return $count === null ? null : (int) $count;
    }

    /**
     * The start label in the order of trust: timecode track, stream tags, format tags.
     *
     * @param  list<array<string, mixed>>  $streams
     * @param  array<string, mixed>|null  $picture
     * @param  array<string, mixed>  $format
     * @param  list<string>  $problems
     * @return array{?int, ?string, ?string, ?FrameRate}
     */
    private static function start(array $streams, ?array $picture, array $format, ?FrameRate $rate, array &$problems): array
    {
        $track = array_filter($streams, static fn(array $stream): bool => ($stream['codec_tag_string'] ?? '') === 'tmcd');
        $others = array_filter($streams, static fn(array $stream): bool => ($stream['codec_tag_string'] ?? '') !== 'tmcd');
        foreach (['tmcd' => $track, 'stream' => $others, 'format' => [$format]] as $source => $places) {
            $label = self::tag($places, 'timecode');
            if ($label === null || $rate === null) {
                continue;
            }
            try {
                $dropped = preg_match('/[;.]\d+\z/', $label) === 1;
                $rate = $rate->withDropFrame($dropped);
                $frames = Timecode::parse($label, $rate);

                return [Ticks::ofFrames($frames, $rate), Timecode::label($frames, $rate), $source, $rate];
            } catch (InvalidTime $trouble) {
                $problems[] = 'The start timecode was not used. ' . $trouble->getMessage();
            }
        }

        return [null, null, null, $rate];
    }

    /**
     * @param  array<string, mixed>  $format
     * @param  list<array<string, mixed>>  $streams
     */
    private static function createdAt(array $format, array $streams): ?string
    {
        $text = self::tag([$format, ...$streams], 'creation_time') ?? '';
        if (
            preg_match(
                '/\A(\d{4})-(\d{2})-(\d{2})[T ]([01]\d|2[0-3]):([0-5]\d):([0-5]\d)(?:\.\d+)?(Z|[+-]\d{2}:?\d{2})?\z/',
                $text,
                $part,
            ) !== 1
        ) {
            return null;
        }
        // Containers that keep no date count from 1904 or 1970; neither is a day of shooting.
        if (in_array($part[1], ['1904', '1970'], true) || !checkdate((int) $part[2], (int) $part[3], (int) $part[1])) {
            return null;
        }

        return "$part[1]-$part[2]-$part[3]T$part[4]:$part[5]:$part[6]" . ($part[7] ?? '');
    }

    /** @param  array<string, mixed>  $picture */
    private static function rotation(array $picture): int
    {
        foreach ($picture['side_data_list'] ?? [] as $side) {
            if (isset($side['rotation'])) {
                return (((int) $side['rotation'] % 360) + 360) % 360;
            }
        }

        return 0;
    }

    /**
     * @param  list<array<string, mixed>>  $sounds
     * @return list<array{index: int, name: string, function: ?string}>
     */
    private static function channels(array $sounds): array
    {
        if (count($sounds) === 1) {
            return ChannelNames::ofLayout((string) ($sounds[0]['channel_layout'] ?? ''), (int) ($sounds[0]['channels'] ?? 0));
        }
        $count = array_sum(array_map(static fn(array $sound): int => (int) ($sound['channels'] ?? 0), $sounds));

        return ChannelNames::ofLayout('', (int) $count);
    }

    /** @param  iterable<array<string, mixed>>  $places */
    private static function tag(iterable $places, string $name): ?string
    {
        foreach ($places as $place) {
            // Matroska writes the names of its tags large.
            $value = trim((string) ($place['tags'][$name] ?? ($place['tags'][strtoupper($name)] ?? '')));
            if ($value !== '') {
                return Text::utf8($value);
            }
        }

        return null;
    }
}
