<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Process;

/**
 * The sound of one clip as line-up uses it: 8 kHz mono 16-bit samples, with an envelope at 100 Hz made on demand.
 *
 * Samples are kept as little-endian bytes, 16 kB a second, so that an hour costs 58 MB and not a list of numbers.
 */
final class GuideTrack
{
    public const SAMPLE_RATE = 8000;

    /** Steps of the envelope to the second, and samples in one step. */
    public const STEP_RATE = 100;

    public const STEP_SAMPLES = 80;

    /** Steps over which the local level is taken away: 1 s, longer than a syllable and shorter than a sentence. */
    private const LEVEL_STEPS = 100;

    /** @var array{list<float>, list<float>}|null */
    private ?array $shape = null;

    private function __construct(public readonly string $bytes)
    {
    }

    public static function ofBytes(string $bytes): self
    {
        return new self(strlen($bytes) % 2 === 0 ? $bytes : substr($bytes, 0, -1));
    }

    /** The samples kept when the clip was catalogued. */
    public static function ofFile(string $path): self
    {
        $bytes = is_file($path) ? file_get_contents($path) : false;
        if ($bytes === false) {
            throw UnableToReadMedia::missing($path);
        }

        return self::ofBytes($bytes);
    }

    /**
     * Decodes the first sound stream of a file; all its channels count alike.
     *
     * @param  int  $channels  channels of that stream
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode it
     */
    public static function decode(string $path, int $channels): self
    {
        $bytes = '';
        $run = Process::run(
            ['ffmpeg', '-v', 'error', '-nostdin', '-protocol_whitelist', 'file,pipe', '-i', 'file:'.$path,
                '-map', '0:a:0', '-af', self::monoFilter($channels), '-ar', (string) self::SAMPLE_RATE, '-f', 's16le', '-'],
            static function (string $piece) use (&$bytes): void {
                $bytes .= $piece;
            },
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $path, $run['error']);
        }

        return self::ofBytes($bytes);
    }

    /** An ffmpeg filter that takes the mean of all channels, whatever layout they claim. */
    public static function monoFilter(int $channels): string
    {
        $parts = [];
        for ($channel = 0; $channel < max(1, $channels); $channel++) {
            $parts[] = sprintf('%.6f*c%d', 1 / max(1, $channels), $channel);
        }

        return 'pan=mono|c0='.implode('+', $parts);
    }

    public function samples(): int
    {
        return intdiv(strlen($this->bytes), 2);
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
        return $this->shape ??= $this->makeShape();
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

    /** @return list<float> log10 of the mean energy of each step, floored where 16 bits end */
    private function logEnergy(): array
    {
        $log = [];
        $steps = $this->steps();
        for ($block = 0; $block < $steps; $block += 100) {
            $count = min(100, $steps - $block);
            $values = unpack('s*', substr($this->bytes, $block * self::STEP_SAMPLES * 2, $count * self::STEP_SAMPLES * 2));
            for ($step = 0; $step < $count; $step++) {
                $sum = 0;
                $last = 0;
                for ($i = $step * 80 + 1, $end = $i + 80; $i < $end; $i++) {
                    $value = $values[$i];
                    $rise = $value - $last; // first difference: takes rumble away before the energy is summed
                    $last = $value;
                    $sum += $rise * $rise;
                }
                $log[] = log10($sum / 80 + 4.0);
            }
        }

        return $log;
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
            $values[$i] = max(-4.0, min(4.0, ($value - $mean) * $scale));
        }

        return $values;
    }
}
