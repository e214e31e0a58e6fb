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

    /** Steps whose numbers are held at once. */
    private const PIECE = 8192;

    /** Bins of the energies' histogram to a factor of e. */
    private const BINS = 1000;

    private ?string $shape = null;

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
        return $this->steps() >= self::STEP_RATE && $this->kept() !== '';
    }

    /**
     * Log-energy envelope and onset strength at 100 Hz, each with zero mean and unit variance, cut at ±4.
     *
     * @return array{list<float>, list<float>} two empty lists when there is no usable sound
     */
    public function shape(): array
    {
        return [$this->values(0, 0, $this->steps()), $this->values(1, 0, $this->steps())];
    }

    /** @return list<float> envelope of some steps: as many of those asked for as there are */
    public function envelope(int $from, int $count): array
    {
        return $this->values(0, $from, $count);
    }

    /** @return list<float> onset strength of some steps: as many of those asked for as there are */
    public function onset(int $from, int $count): array
    {
        return $this->values(1, $from, $count);
    }

    /** The file that holds the samples; null where they are held in memory. */
    public function file(): ?string
    {
        return $this->path === '' ? null : $this->path;
    }

    /** @return list<int> envelope of some steps as it is kept, ±127 for ±4 */
    public function envelopeBytes(int $from, int $count): array
    {
        return self::every($this->kept(), 0, $from, $count);
    }

    /** Keeps the shape beside the samples' file, so that it is made once for each recording. */
    public function keepShape(): void
    {
        $bytes = $this->kept();
        if (
            @file_put_contents($this->path . '.shape.part', $bytes) !== strlen($bytes) ||
            !@rename($this->path . '.shape.part', $this->path . '.shape')
        ) {
            throw UnableToReadMedia::missing($this->path . '.shape');
        }
    }

    /**
     * @param  0|1  $which
     * @return list<float>
     */
    private function values(int $which, int $from, int $count): array
    {
        $from = max(0, $from);
        $values = [];
        // Numbers of a long recording are taken out of their bytes a piece at a time.
        for ($at = $from, $end = $from + max(0, $count); $at < $end; $at += self::PIECE) {
            $piece = self::every($this->kept(), $which, $at, min(self::PIECE, $end - $at));
            if ($piece === []) {
                break;
            }
            foreach ($piece as $value) {
                $values[] = $value / self::SCALE;
            }
        }

        return $values;
    }

    /**
     * @param  string  $shape  two signed bytes a step
     * @param  0|1  $which  of the two
     * @return list<int>
     */
    private static function every(string $shape, int $which, int $from, int $count): array
    {
        $values = [];
        foreach (unpack('c*', substr($shape, 2 * $from, 2 * $count)) ?: [] as $at => $value) {
            if ($at % 2 !== $which) {
                $values[] = $value;
            }
        }

        return $values;
    }

    /** Envelope and onset of each step, a signed byte each; empty when there is no usable sound. */
    private function kept(): string
    {
        return $this->shape ??= $this->keptShape() ?? $this->makeShape();
    }

    /** @return string|null null when none is kept, or it is of other samples */
    private function keptShape(): ?string
    {
        $bytes = $this->path === '' ? false : @file_get_contents($this->path . '.shape');

        return $bytes === false || ($bytes !== '' && strlen($bytes) !== 2 * $this->steps()) ? null : $bytes;
    }

    /** In pieces, so that ten hours take no more than a few bytes a step. */
    private function makeShape(): string
    {
        $log = $this->logEnergy();
        $steps = intdiv(strlen($log), 4);
        $parts = ['', ''];
        $sums = $squares = [0.0, 0.0];
        $least = INF;
        $most = -INF;
        $half = intdiv(self::LEVEL_STEPS, 2);
        // The window around a step is a sum that goes along.
        $read = static fn(int $from, int $count): array => array_values(unpack('g*', substr($log, 4 * $from, 4 * $count)) ?: []);
        for ($begin = 0; $begin < $steps; $begin += self::PIECE) {
            $first = max(0, $begin - $half);
            $end = min($steps, $begin + self::PIECE);
            $near = $read($first, min($steps, $end + $half) - $first);
            $running = [0.0];
            foreach ($near as $value) {
                $running[] = $running[count($running) - 1] + $value;
                $least = min($least, $value);
                $most = max($most, $value);
            }
            $both = [[], []];
            for ($at = $begin; $at < $end; $at++) {
                $from = max(0, $at - $half) - $first;
                $to = min($steps, $at + $half) - $first;
                $value = $near[$at - $first];
                $both[0][] = $value - ($running[$to] - $running[$from]) / ($to - $from);
                $both[1][] = max(0.0, $value - $near[max(0, $at - $first - 2)]);
            }
            foreach ($both as $which => $values) {
                $parts[$which] .= pack('g*', ...$values);
                foreach ($values as $value) {
                    $sums[$which] += $value;
                    $squares[$which] += $value * $value;
                }
            }
        }
        if ($steps < self::STEP_RATE || $most - $least < 0.15) {
            return '';
        }
        $shape = '';
        for ($begin = 0; $begin < $steps; $begin += self::PIECE) {
            $normal = [];
            foreach ($parts as $which => $bytes) {
                $mean = $sums[$which] / $steps;
                $scale = 1 / max(1e-9, sqrt(max(0.0, $squares[$which] / $steps - $mean * $mean)));
                foreach (array_values(unpack('g*', substr($bytes, 4 * $begin, 4 * self::PIECE)) ?: []) as $at => $value) {
                    $normal[2 * $at + $which] = (int) round(max(-4.0, min(4.0, ($value - $mean) * $scale)) * self::SCALE);
                }
            }
            ksort($normal);
            $shape .= pack('c*', ...$normal);
        }

        return $shape;
    }

    /**
     * Energy of each step between about 300 and 3000 Hz, where voices are and where every microphone hears, as a
     * logarithm over what is usual for the clip, so that its noise does not count as much as its voices.
     *
     * @return string a little-endian float of 32 bits each
     */
    private function logEnergy(): string
    {
        $energies = '';
        $histogram = [];
        $steps = $this->steps();
        $x1 = $x2 = $x3 = 0;
        for ($block = 0; $block < $steps; $block += self::BLOCK) {
            $sum = $at = 0;
            $energy = [];
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
            foreach ($energy as $value) {
                $bin = (int) (self::BINS * log($value + 1));
                $histogram[$bin] = ($histogram[$bin] ?? 0) + 1;
            }
            $energies .= pack('g*', ...$energy);
        }
        $usual = self::median($histogram, $steps) * self::FLOOR + 4.0;
        $log = '';
        for ($from = 0, $size = strlen($energies); $from < $size; $from += 4 * self::PIECE) {
            $values = unpack('g*', substr($energies, $from, 4 * self::PIECE)) ?: [];
            $log .= pack('g*', ...array_map(static fn(float $value): float => log10($value + $usual), $values));
        }

        return $log;
    }

    /**
     * To a thousandth, without sorting hours of values.
     *
     * @param  array<int, int>  $histogram
     */
    private static function median(array $histogram, int $count): float
    {
        ksort($histogram);
        $seen = 0;
        foreach ($histogram as $bin => $many) {
            $seen += $many;
            if ($seen > intdiv($count, 2)) {
                return exp(($bin + 0.5) / self::BINS) - 1;
            }
        }

        return 0.0;
    }
}
