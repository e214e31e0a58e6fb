<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * Collects minimum, maximum and RMS of every channel while sound streams by, and writes them as one file.
 *
 * Fed with interleaved 16-bit little-endian samples. Level 0 has buckets of 256 samples, each level above it half as
 * many. File: `CPK1`, u16 channels, u16 levels, u32 bucket samples, u32 sample rate, u64 samples, then a u32 count of
 * buckets for each level, then the levels, finest first: for each bucket and channel i16 min, i16 max, u16 RMS. All
 * little-endian. Memory does not grow with the sound: levels beyond 2 MiB wait in temporary files.
 */
final class Peaks
{
    public const BUCKET_SAMPLES = 256;

    private const PIECE_BUCKETS = 64;

    /** Of a wave with two levels, such as timecode, the RMS is near the peak; of voices and noise it is a third of it or less. */
    private const STEADY = 0.45;

    private const STEADY_SHARE = 0.8;

    /** Buckets that must have sound before a channel is said to be steady. */
    private const STEADY_LEAST = 100;

    private const LEAST_SQUARE = 2_500;

    /** @var array<int, array{int, int}> by channel from 1: buckets with sound, and those of them that are steady */
    private array $steady = [];

    private string $pending = '';

    private int $samples = 0;

    /** @var list<resource> */
    private array $levels = [];

    /** @var list<int> */
    private array $counts = [];

    /** @var list<list<array{int, int, float}>|null> the odd bucket of a level that waits for its neighbour */
    private array $waiting = [];

    public function __construct(private readonly int $channels, private readonly int $sampleRate) {}

    public function feed(string $bytes): void
    {
        $this->pending .= $bytes;
        $bucketBytes = self::BUCKET_SAMPLES * $this->channels * 2;
        $piece = $bucketBytes * self::PIECE_BUCKETS;
        while (strlen($this->pending) >= $piece) {
            $this->piece(substr($this->pending, 0, $piece), self::BUCKET_SAMPLES);
            $this->pending = substr($this->pending, $piece);
        }
    }

    /**
     * Writes the file under a temporary name and renames it.
     *
     * @return array{channels: int, buckets: int, bucket_samples: int, levels: int}
     */
    public function finish(string $path): array
    {
        $frame = $this->channels * 2;
        $this->pending = substr($this->pending, 0, strlen($this->pending) - (strlen($this->pending) % $frame));
        if ($this->pending !== '') {
            $this->piece($this->pending, self::BUCKET_SAMPLES);
        }
        for ($level = 0; $level < count($this->waiting); $level++) {
            if ($this->waiting[$level] !== null && $this->counts[$level] > 1) {
                $this->raise($level + 1, $this->waiting[$level]);
            }
        }
        $temporary = $path . '.part';
        $out = fopen($temporary, 'wb');
        fwrite(
            $out,
            'CPK1' . pack('vvVVP', $this->channels, count($this->levels), self::BUCKET_SAMPLES, $this->sampleRate, $this->samples),
        );
        foreach ($this->counts as $count) {
            fwrite($out, pack('V', $count));
        }
        foreach ($this->levels as $level) {
            rewind($level);
            stream_copy_to_stream($level, $out);
            fclose($level);
        }
        fclose($out);
        rename($temporary, $path);

        return [
            'channels' => $this->channels,
            'buckets' => $this->counts[0] ?? 0,
            'bucket_samples' => self::BUCKET_SAMPLES,
            'levels' => count($this->levels),
        ];
    }

    /** @return list<int> channels from 1 that sound like a steady wave all along, as linear timecode does */
    public function steadyChannels(): array
    {
        return array_keys(
            array_filter(
                $this->steady,
                static fn(array $count): bool => $count[0] >= self::STEADY_LEAST && $count[1] >= self::STEADY_SHARE * $count[0],
            ),
        );
    }

    private function piece(string $bytes, int $bucketSamples): void
    {
        $values = unpack('s*', $bytes);
        $channels = $this->channels;
        $total = intdiv(count($values), $channels);
        $this->samples += $total;
        for ($from = 0; $from < $total; $from += $bucketSamples) {
            $to = min($total, $from + $bucketSamples);
            $bucket = [];
            for ($channel = 1; $channel <= $channels; $channel++) {
                $low = $high = $values[$from * $channels + $channel];
                $sum = 0;
                for ($at = $from * $channels + $channel, $end = $to * $channels; $at <= $end; $at += $channels) {
                    $value = $values[$at];
                    if ($value < $low) {
                        $low = $value;
                    } elseif ($value > $high) {
                        $high = $value;
                    }
                    $sum += $value * $value;
                }
                $bucket[] = [$low, $high, $sum / ($to - $from)];
                if ($sum > self::LEAST_SQUARE * ($to - $from)) {
                    $count = $this->steady[$channel] ?? [0, 0];
                    $peak = max(-$low, $high);
                    $this->steady[$channel] = [
                        $count[0] + 1,
                        $count[1] + (int) ($sum >= self::STEADY ** 2 * $peak * $peak * ($to - $from)),
                    ];
                }
            }
            $this->raise(0, $bucket);
        }
    }

    /** @param  list<array{int, int, float}>  $bucket minimum, maximum and mean square of each channel */
    private function raise(int $level, array $bucket): void
    {
        $this->levels[$level] ??= fopen('php://temp', 'w+b');
        $this->counts[$level] ??= 0;
        $this->waiting[$level] ??= null;
        $bytes = '';
        foreach ($bucket as [$low, $high, $square]) {
            $bytes .= pack('vvv', $low & 0xffff, $high & 0xffff, (int) round(sqrt($square)));
        }
        fwrite($this->levels[$level], $bytes);
        $this->counts[$level]++;
        if ($this->waiting[$level] === null) {
            $this->waiting[$level] = $bucket;

            return;
        }
        $pair = [];
        foreach ($this->waiting[$level] as $channel => [$low, $high, $square]) {
            [$otherLow, $otherHigh, $otherSquare] = $bucket[$channel];
            $pair[] = [min($low, $otherLow), max($high, $otherHigh), ($square + $otherSquare) / 2];
        }
        $this->waiting[$level] = null;
        $this->raise($level + 1, $pair);
    }
}
