<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\SoundStreams;
use Cartella\Core\Process;

/**
 * The sound of one clip as line-up uses it: 8 kHz mono 16-bit samples, with an envelope at 100 Hz made on demand.
 *
 * Samples are little-endian bytes, 16 kB a second, and stay in their file until they are asked for, so that a day of
 * long recordings is compared in little memory.
 */
final class GuideTrack
{
    public const SAMPLE_RATE = 8000;

    /** Steps of the envelope to the second, and samples in one step. */
    public const STEP_RATE = 100;

    public const STEP_SAMPLES = 80;

    /** Steps over which the local level is taken away: 1 s, longer than a syllable and shorter than a sentence. */
    private const LEVEL_STEPS = 100;

    /** Share of a clip's median energy below which steps hardly differ. */
    private const FLOOR = 0.4;

    /** Steps that are read at once. */
    private const BLOCK = 400;

    /** A shape's values lie within ±4 and are kept in 8 bits. */
    private const SCALE = 31.75;

    /** @var array{list<float>, list<float>}|null */
    private ?array $shape = null;

    private function __construct(private readonly ?string $bytes, private readonly string $path, private readonly int $count) {}

    public static function ofBytes(string $bytes): self
    {
        return new self($bytes, '', intdiv(strlen($bytes), 2));
    }

    /**
     * The samples kept when the clip was catalogued; its shape too, where it was kept beside them.
     *
     * @throws UnableToReadMedia if the file is not there
     */
    public static function ofFile(string $path): self
    {
        clearstatcache(true, $path);
        $size = is_file($path) ? filesize($path) : false;
        if ($size === false) {
            throw UnableToReadMedia::missing($path);
        }

        return new self(null, $path, intdiv($size, 2));
    }

    /**
     * Decodes a file's sound and keeps of it what is a guide ({@see GuideChannels}).
     *
     * @param  non-empty-list<int>  $streams  channels of each stream
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode it
     */
    public static function decode(string $path, array $streams): self
    {
        $target = (string) tempnam(sys_get_temp_dir(), 'guide');
        try {
            self::write($path, $streams, $target);

            return self::ofBytes((string) file_get_contents($target));
        } finally {
            @unlink($target);
        }
    }

    /**
     * Decodes as {@see decode} does, into a file, and keeps the shape beside it.
     *
     * @param  non-empty-list<int>  $streams  channels of each stream
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode it, or the file cannot be written
     */
    public static function decodeTo(string $path, array $streams, string $target): self
    {
        self::write($path, $streams, $target);
        $track = self::ofFile($target);
        $track->keepShape();

        return $track;
    }

    /** @param  non-empty-list<int>  $streams */
    private static function write(string $path, array $streams, string $target): void
    {
        $raw = $target . '.all';
        try {
            $run = Process::run([...Ffmpeg::command(), ...Ffmpeg::input($path), ...self::allChannels($streams, $raw)], null, 6 * 3600);
            if ($run['status'] !== 0) {
                throw UnableToReadMedia::program('ffmpeg', $path, $run['error']);
            }
            self::mix($raw, array_sum($streams), GuideChannels::of($raw, array_sum($streams))->chosen(), $target);
        } finally {
            @unlink($raw);
        }
    }

    /**
     * What ffmpeg is told for the samples of all channels side by side, of which {@see mix} takes some.
     *
     * @param  non-empty-list<int>  $streams  channels of each stream
     * @return list<string>
     */
    public static function allChannels(array $streams, string $target): array
    {
        return [
            '-filter_complex',
            SoundStreams::together($streams, self::SAMPLE_RATE) . '[guide]',
            '-map',
            '[guide]',
            '-f',
            's16le',
            'file:' . $target,
        ];
    }

    /**
     * Keeps the mean of some channels.
     *
     * @param  string  $raw  8 kHz samples of all channels side by side; it may be gone afterwards
     * @param  non-empty-list<int>  $chosen  from 1
     *
     * @throws UnableToReadMedia if the file cannot be written
     */
    public static function mix(string $raw, int $channels, array $chosen, string $target): void
    {
        if ($channels === 1) {
            if (!@rename($raw, $target)) {
                throw UnableToReadMedia::missing($target);
            }

            return;
        }
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::samples($raw, self::SAMPLE_RATE, $channels),
                '-af',
                GuideChannels::meanFilter($chosen),
                '-f',
                's16le',
                'file:' . $target,
            ],
            null,
            3600,
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $raw, $run['error']);
        }
    }

    public function samples(): int
    {
        return $this->count;
    }

    /** Samples as bytes, two each: as many of those asked for as the track has. */
    public function slice(int $start, int $count): string
    {
        $from = max(0, $start);
        $length = min($this->count, $start + $count) - $from;
        if ($length <= 0) {
            return '';
        }
        if ($this->bytes !== null) {
            return substr($this->bytes, 2 * $from, 2 * $length);
        }
        $bytes = @file_get_contents($this->path, false, null, 2 * $from, 2 * $length);

        return $bytes === false ? throw UnableToReadMedia::missing($this->path) : $bytes;
    }

    public function steps(): int
    {
        return intdiv($this->samples(), self::STEP_SAMPLES);
    }

    /** Whether there is anything to hear: false for digital silence and for a bare noise floor that never moves. */
    public function hasUsableSound(): bool
    {
        return $this->steps() >= self::STEP_RATE && $this->shape()[0] !== [];
    }

    /**
     * Log-energy envelope and onset strength at 100 Hz, each with zero mean and unit variance, cut at ±4.
     *
     * @return array{list<float>, list<float>} two empty lists when there is no usable sound
     */
    public function shape(): array
    {
        return $this->shape ??= $this->keptShape() ?? $this->makeShape();
    }

    /** Keeps the shape beside the samples' file, so that it is made once for each recording. */
    public function keepShape(): void
    {
        [$envelope, $onset] = $this->shape();
        $bytes = '';
        foreach (array_chunk($envelope, 8192) as $block => $values) {
            $both = [];
            foreach ($values as $at => $value) {
                $both[] = (int) round($value * self::SCALE);
                $both[] = (int) round($onset[$block * 8192 + $at] * self::SCALE);
            }
            $bytes .= pack('c*', ...$both);
        }
        if (
            @file_put_contents($this->path . '.shape.part', $bytes) !== strlen($bytes) ||
            !@rename($this->path . '.shape.part', $this->path . '.shape')
        ) {
            throw UnableToReadMedia::missing($this->path . '.shape');
        }
    }

    /** @return array{list<float>, list<float>}|null null when none is kept, or it is of other samples */
    private function keptShape(): ?array
    {
        $bytes = $this->path === '' ? false : @file_get_contents($this->path . '.shape');
        if ($bytes === false || ($bytes !== '' && strlen($bytes) !== 2 * $this->steps())) {
            return null;
        }
        $envelope = $onset = [];
        foreach (str_split($bytes, 16_384) as $piece) {
            $isOnset = false;
            foreach (unpack('c*', $piece) ?: [] as $value) {
                if ($isOnset) {
                    $onset[] = $value / self::SCALE;
                } else {
                    $envelope[] = $value / self::SCALE;
                }
                $isOnset = !$isOnset;
            }
        }

        return [$envelope, $onset];
    }

    /** @return array{list<float>, list<float>} */
    private function makeShape(): array
    {
        $log = $this->logEnergy();
        $steps = count($log);
        if ($steps < self::STEP_RATE || max($log) - min($log) < 0.15) {
            return [[], []];
        }
        $sums = [0.0];
        for ($i = 0; $i < $steps; $i++) {
            $sums[] = $sums[$i] + $log[$i];
        }
        $half = intdiv(self::LEVEL_STEPS, 2);
        $envelope = $onset = [];
        for ($i = 0; $i < $steps; $i++) {
            $from = max(0, $i - $half);
            $to = min($steps, $i + $half);
            $envelope[] = $log[$i] - ($sums[$to] - $sums[$from]) / ($to - $from);
            $onset[] = max(0.0, $log[$i] - $log[max(0, $i - 2)]);
        }

        return [self::normal($envelope), self::normal($onset)];
    }

    /**
     * Energy of each step between about 300 and 3000 Hz, where voices are and where every microphone hears, as a
     * logarithm over what is usual for the clip, so that its noise does not count as much as its voices.
     *
     * @return list<float>
     */
    private function logEnergy(): array
    {
        $energy = [];
        $steps = $this->steps();
        $x1 = $x2 = $x3 = 0;
        for ($block = 0; $block < $steps; $block += self::BLOCK) {
            $sum = $at = 0;
            // Four samples at once: taking numbers out of bytes costs more than what is done with them.
            foreach (
                unpack('P*', $this->slice($block * self::STEP_SAMPLES, min(self::BLOCK, $steps - $block) * self::STEP_SAMPLES)) ?: []
                as $four
            ) {
                $a = ($four << 48) >> 48;
                $b = ($four << 32) >> 48;
                $c = ($four << 16) >> 48;
                $d = $four >> 48;
                $bandA = $a + $x1 - $x2 - $x3;
                $bandB = $b + $a - $x1 - $x2;
                $bandC = $c + $b - $a - $x1;
                $bandD = $d + $c - $b - $a;
                $sum += $bandA * $bandA + $bandB * $bandB + $bandC * $bandC + $bandD * $bandD;
                $x3 = $b;
                $x2 = $c;
                $x1 = $d;
                if (++$at === self::STEP_SAMPLES / 4) {
                    $energy[] = $sum / self::STEP_SAMPLES;
                    $sum = $at = 0;
                }
            }
        }
        $sorted = $energy;
        sort($sorted);
        $usual = ($sorted[intdiv(count($sorted), 2)] ?? 0.0) * self::FLOOR + 4.0;

        return array_map(static fn(float $value): float => log10($value + $usual), $energy);
    }

    /**
     * @param  list<float>  $values
     * @return list<float>
     */
    private static function normal(array $values): array
    {
        $count = count($values);
        $mean = array_sum($values) / $count;
        $square = 0.0;
        foreach ($values as $value) {
            $square += ($value - $mean) ** 2;
        }
        $scale = 1 / max(1e-9, sqrt($square / $count));
        foreach ($values as $i => $value) {
            // In the steps that are kept, so that a clip lies the same whether its shape was kept or made just now.
            $values[$i] = round(max(-4.0, min(4.0, ($value - $mean) * $scale)) * self::SCALE) / self::SCALE;
        }

        return $values;
    }
}
