<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Process;
use Cartella\Core\Time\FrameRate;

/**
 * Which picture of a file of a variable rate is shown at each frame of a constant one.
 *
 * A picture is shown from the frame that is nearest to its own timestamp until the next one's; what falls on the same
 * frame as a later one is not shown at all. So does ffmpeg's `fps=round=near`, with which proxies are made. Frames and
 * pictures count from 0; kept as little-endian words of 32 bits.
 */
final readonly class FrameMap
{
    /** @param  list<int>  $pictures  by frame */
    private function __construct(public array $pictures) {}

    /**
     * @param  int  $frames  how many the constant rate makes of it
     *
     * @throws UnableToReadMedia if its timestamps cannot be read
     */
    public static function ofFile(string $path, FrameRate $rate, int $frames): self
    {
        $run = Process::run(
            Ffmpeg::probe($path, ['-select_streams', 'v:0', '-show_entries', 'packet=pts_time:format=start_time']),
            limitSeconds: 1800,
        );
        $answer = $run['status'] === 0 ? json_decode($run['output'], true) : null;
        if (!is_array($answer)) {
            throw UnableToReadMedia::program('ffprobe', $path, $run['error']);
        }
        $times = array_map(
            floatval(...),
            array_filter(array_column($answer['packets'] ?? [], 'pts_time'), static fn(string $time): bool => is_numeric($time)),
        );
        sort($times);

        return self::of($times, (float) ($answer['format']['start_time'] ?? 0.0), $rate, $frames);
    }

    /**
     * @param  list<float>  $times  of the pictures in the order in which they are shown, seconds
     * @param  float  $start  of the file, seconds
     */
    public static function of(array $times, float $start, FrameRate $rate, int $frames): self
    {
        $pictures = array_fill(0, max(0, $frames), 0);
        foreach ($times as $picture => $time) {
            $at = (int) round((($time - $start) * $rate->num) / $rate->den);
            if ($at >= 0 && $at < $frames) {
                $pictures[$at] = $picture;
            }
        }
        // What no picture falls on shows the one before.
        for ($at = 1; $at < $frames; $at++) {
            $pictures[$at] = max($pictures[$at], $pictures[$at - 1]);
        }

        return new self($pictures);
    }

    public function toBytes(): string
    {
        return pack('V*', ...$this->pictures);
    }

    public static function ofBytes(string $bytes): self
    {
        return new self(array_values(unpack('V*', $bytes) ?: []));
    }
}
