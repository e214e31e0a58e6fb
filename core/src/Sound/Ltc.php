<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\SoundStreams;
use Cartella\Core\Process;
use Cartella\Core\Sound\Internal\LtcListener;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Instant;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/**
 * Reads linear timecode (SMPTE ST 12-1) from one channel of sound: forwards, 24 to 30 frames, 0.9 to 1.1 times speed,
 * −3 to −40 dBFS, either polarity.
 *
 * Works at 48 kHz on 16-bit samples. A frame counts when its sync word, its digits and its neighbour agree; three in a
 * row make a reading, so that speech makes none. Cost: one pass over the samples; memory grows with the frames only.
 */
final class Ltc
{
    private const SAMPLE_RATE = 48_000;

    private const IN_A_ROW = 3;

    private const MOST_CHANNELS = 999;

    /** Pieces that say whether a channel may carry it at all. */
    private const PIECES = 5;

    private const PIECE_SECONDS = 2;

    /**
     * @param  FrameRate  $rate  as counted, and as fast as it was heard where that can be told
     * @param  int  $startTicks  the time at the file's first sample
     * @param  string  $first  label of the first whole frame
     * @param  string  $last  label of the last whole frame
     * @param  int  $count  whole frames heard
     */
    private function __construct(
        public readonly FrameRate $rate,
        public readonly int $startTicks,
        public readonly string $first,
        public readonly string $last,
        public readonly int $count,
    ) {}

    /**
     * @param  int  $channel  from 1, through all streams
     * @param  non-empty-list<int>  $streams  channels of each stream
     * @return self|null null where the channel carries no timecode
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode the file
     */
    public static function ofFile(string $path, int $channel, array $streams = [self::MOST_CHANNELS]): ?self
    {
        [$stream, $index] = SoundStreams::at($streams, $channel);
        $listener = new LtcListener();
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input($path),
                '-map',
                "0:a:$stream",
                '-af',
                "pan=mono|c0=c$index",
                '-ar',
                (string) self::SAMPLE_RATE,
                '-f',
                's16le',
                '-',
            ],
            $listener->hear(...),
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $path, $run['error']);
        }

        return self::of($listener);
    }

    /**
     * Whether a channel is worth listening to all along: a frame is heard in one of some short pieces spread over it.
     *
     * @param  int  $channel  from 1, through all streams
     * @param  non-empty-list<int>  $streams  channels of each stream
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode the file
     */
    public static function isLikely(string $path, int $channel, array $streams, int $durationTicks): bool
    {
        $seconds = intdiv($durationTicks, Ticks::PER_SECOND);
        if ($seconds < 2 * self::PIECES * self::PIECE_SECONDS) {
            return true;
        }
        [$stream, $index] = SoundStreams::at($streams, $channel);
        for ($piece = 0; $piece < self::PIECES; $piece++) {
            $from = intdiv(($seconds - self::PIECE_SECONDS) * $piece, self::PIECES - 1);
            $listener = new LtcListener();
            $run = Process::run(
                [
                    ...Ffmpeg::command(),
                    ...Ffmpeg::input($path, ['-ss', (string) $from]),
                    ...['-t', (string) self::PIECE_SECONDS, '-map', "0:a:$stream", '-af', "pan=mono|c0=c$index"],
                    ...['-ar', (string) self::SAMPLE_RATE, '-f', 's16le', '-'],
                ],
                $listener->hear(...),
            );
            if ($run['status'] !== 0) {
                throw UnableToReadMedia::program('ffmpeg', $path, $run['error']);
            }
            if ($listener->frames()->valid()) {
                return true;
            }
        }

        return false;
    }

    /** @param  string  $bytes  16-bit little-endian samples at 48 kHz, one channel */
    public static function ofBytes(string $bytes): ?self
    {
        $listener = new LtcListener();
        $listener->hear($bytes);

        return self::of($listener);
    }

    private static function of(LtcListener $heard): ?self
    {
        $heard->end();
        $lengths = [];
        $drops = 0;
        foreach ($heard->frames() as $frame) {
            $lengths[] = $frame['length'];
            $drops += $frame['drop'];
        }
        if ($lengths === []) {
            return null;
        }
        sort($lengths);
        $typical = $lengths[intdiv(count($lengths), 2)];
        $isDrop = 2 * $drops > count($lengths);
        unset($lengths);
        [$rate, $run] = [FrameRate::parse('24'), null];
        // Whatever the speed, only one rate counts over the end of a second as was heard; where none was, the length tells.
        $candidates = $isDrop ? ['29.97df'] : ['24', '25', '30'];
        usort(
            $candidates,
            static fn(string $x, string $y): int => abs((float) $x - self::SAMPLE_RATE / $typical) <=>
                abs((float) $y - self::SAMPLE_RATE / $typical),
        );
        foreach ($candidates as $name) {
            $chain = self::chain($heard->frames(), FrameRate::parse($name), $typical);
            if ($chain !== null && $chain['count'] > ($run['count'] ?? 0)) {
                [$rate, $run] = [FrameRate::parse($name), $chain];
            }
        }
        if ($run === null || $run['count'] < self::IN_A_ROW) {
            return null;
        }
        ['first' => $first, 'last' => $last] = $run;
        $length = ($last['at'] - $first['at']) / self::steps($first['index'], $last['index'], $rate);
        $rate = self::asHeard($rate, self::SAMPLE_RATE / $length);
        $label = static fn(array $frame): string => Timecode::label($frame['index'], $rate);
        // In timecode's own time: at another speed, what lies before the first frame is as much shorter or longer.
        $before = (int) round((($first['at'] / $length) * $rate->den * Ticks::PER_SECOND) / $rate->num);

        return new self($rate, Instant::parse($label($first), $rate) - $before, $label($first), $label($last), $run['count']);
    }

    /**
     * The longest run of frames that count on from each other at a rate; one or two that were misheard do not end it.
     *
     * @param  iterable<array{at: float, length: float, hours: int, minutes: int, seconds: int, frame: int, drop: int}>  $frames
     * @return array{first: array{at: float, index: int}, last: array{at: float, index: int}, count: int}|null
     */
    private static function chain(iterable $frames, FrameRate $rate, float $typical): ?array
    {
        $fits = static fn(?array $last, array $next): bool => $last !== null &&
            self::steps($last['index'], $next['index'], $rate) === max(1, (int) round(($next['at'] - $last['at']) / $typical));
        $best = $chain = null;
        $other = [];
        foreach ($frames as $frame) {
            $isLeftOut = $rate->dropFrame && $frame['seconds'] === 0 && $frame['frame'] < 2 && $frame['minutes'] % 10 !== 0;
            if ($isLeftOut || $frame['frame'] >= $rate->nominal) {
                continue;
            }
            $next = [
                'at' => $frame['at'],
                'index' => Timecode::parse(
                    sprintf(
                        '%02d:%02d:%02d%s%02d',
                        $frame['hours'],
                        $frame['minutes'],
                        $frame['seconds'],
                        $rate->dropFrame ? ';' : ':',
                        $frame['frame'],
                    ),
                    $rate,
                ),
            ];
            if ($chain !== null && $fits($chain['last'], $next)) {
                $chain = ['first' => $chain['first'], 'last' => $next, 'count' => $chain['count'] + 1];
                $other = [];

                continue;
            }
            $other = $fits($other[count($other) - 1] ?? null, $next) ? [...$other, $next] : [$next];
            if (count($other) >= self::IN_A_ROW || $chain === null) {
                $best = ($chain['count'] ?? 0) > ($best['count'] ?? 0) ? $chain : $best;
                [$chain, $other] = [['first' => $other[0], 'last' => $next, 'count' => count($other)], []];
            }
        }

        return ($chain['count'] ?? 0) > ($best['count'] ?? 0) ? $chain : $best;
    }

    /** Frames from one label to a later one; after midnight labels begin again. */
    private static function steps(int $from, int $to, FrameRate $rate): int
    {
        static $days = [];
        $days[$rate->label()] ??= 1 + Timecode::parse(sprintf('23:59:59%s%02d', $rate->dropFrame ? ';' : ':', $rate->nominal - 1), $rate);

        return $to >= $from ? $to - $from : $to - $from + $days[$rate->label()];
    }

    /** 23.976 and 29.97 count as 24 and 30 do; they are told apart where the speed is right. */
    private static function asHeard(FrameRate $rate, float $heard): FrameRate
    {
        $slow = ($rate->nominal * 1000) / 1001;
        if ($rate->dropFrame || $rate->nominal === 25 || abs($heard - $slow) > 0.3 * ($rate->nominal - $slow)) {
            return $rate;
        }

        return FrameRate::parse($rate->nominal === 24 ? '23.976' : '29.97');
    }
}
