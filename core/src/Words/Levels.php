<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\PeakFile;
use Cartella\Core\Time\Ticks;

/**
 * How loud each channel of a sound is, step by step: dBFS of the RMS, from the finest level of its peaks ({@see
 * \Cartella\Core\Media\Peaks}), 256 samples a step. A byte a step and channel, so that thirteen hours take some ten megabytes.
 */
final readonly class Levels
{
    /** dBFS of what is as good as silent, and half decibels to a step of the byte. */
    public const SILENT = -100.0;

    private const PIECE = 1 << 16;

    /**
     * @param  list<string>  $channels  a byte a step: half decibels over {@see SILENT}
     * @param  float  $stepTicks  of one step
     * @param  int  $lengthTicks  of the sound
     * @param  int  $before  steps of the sound that lie before the first of these
     */
    private function __construct(
        public array $channels,
        public float $stepTicks,
        private int $lengthTicks = PHP_INT_MAX,
        private int $before = 0,
    ) {}

    /** @throws UnableToReadMedia if the file has no sound or cannot be decoded */
    public static function ofFile(string $path): self
    {
        $folder = sys_get_temp_dir() . '/cartella-levels-' . bin2hex(random_bytes(6));
        if (!@mkdir($folder)) {
            throw UnableToReadMedia::missing($folder);
        }
        try {
            PeakFile::make($path, $folder . '/peaks');

            return self::ofPeaks($folder . '/peaks');
        } finally {
            @unlink($folder . '/peaks');
            @unlink($folder . '/peaks.part');
            @rmdir($folder);
        }
    }

    /**
     * @param  int  $fromTicks  of the sound, as is `$toTicks`: only what lies between is read
     *
     * @throws UnableToReadMedia if it is no file of peaks
     */
    public static function ofPeaks(string $path, int $fromTicks = 0, int $toTicks = PHP_INT_MAX): self
    {
        $file = @fopen($path, 'rb');
        $head = $file === false ? '' : (string) fread($file, 24);
        if ($file === false || strlen($head) < 24 || !str_starts_with($head, 'CPK1')) {
            throw UnableToReadMedia::missing($path);
        }
        $facts = unpack('vchannels/vlevels/Vstep/Vrate/Psamples', $head, 4);
        $channels = (int) ($facts['channels'] ?? 0);
        $steps = $facts === false || $facts['levels'] < 1 ? 0 : (int) (unpack('V', (string) fread($file, 4))[1] ?? 0);
        if ($facts === false || $channels < 1 || $facts['rate'] < 1) {
            fclose($file);
            throw UnableToReadMedia::missing($path);
        }
        $stepTicks = ((int) $facts['step'] * Ticks::PER_SECOND) / (int) $facts['rate'];
        $before = (int) min($steps, max(0, floor($fromTicks / $stepTicks)));
        $steps = (int) max(0, min($steps, ceil($toTicks / $stepTicks)) - $before);
        fseek($file, 24 + 4 * (int) $facts['levels'] + 6 * $channels * $before);
        $decibels = self::table();
        $all = array_fill(0, $channels, '');
        for ($left = $steps; $left > 0; $left -= self::PIECE) {
            $values = unpack('v*', (string) fread($file, 6 * $channels * min($left, self::PIECE))) ?: [];
            $count = intdiv(count($values), 3 * $channels);
            foreach ($all as $channel => $bytes) {
                $piece = '';
                for ($step = 0, $at = 3 * ($channel + 1); $step < $count; $step++, $at += 3 * $channels) {
                    $piece .= $decibels[$values[$at]];
                }
                $all[$channel] = $bytes . $piece;
            }
        }
        fclose($file);

        $length = Ticks::ofSamples((int) $facts['samples'], (int) $facts['rate']);

        return new self(array_values($all), $stepTicks, $length, $before);
    }

    /** @param  list<list<float>>  $channels  dBFS of each step */
    public static function of(array $channels, float $stepTicks): self
    {
        $byte = static fn(float $decibels): string => chr((int) round(2 * (max(self::SILENT, min(0.0, $decibels)) - self::SILENT)));

        return new self(array_map(static fn(array $one): string => implode('', array_map($byte, $one)), $channels), $stepTicks);
    }

    /** @param  list<int>  $channels  from 1 */
    public function only(array $channels): self
    {
        $kept = array_map(fn(int $channel): string => $this->channels[$channel - 1] ?? '', $channels);

        return new self(
            array_values(array_filter($kept, static fn(string $one): bool => $one !== '')),
            $this->stepTicks,
            $this->lengthTicks,
            $this->before,
        );
    }

    /** The loudest channel of each step. */
    public function loudest(): self
    {
        $steps = $this->steps();
        $first = $this->channels[0] ?? '';
        foreach (array_slice($this->channels, 1) as $other) {
            for ($step = 0; $step < $steps; $step++) {
                if ($other[$step] > $first[$step]) {
                    $first[$step] = $other[$step];
                }
            }
        }

        return new self([$first], $this->stepTicks, $this->lengthTicks, $this->before);
    }

    public function steps(): int
    {
        return $this->channels === [] ? 0 : min(array_map(strlen(...), $this->channels));
    }

    /** dBFS of a channel at a step. */
    public function at(int $channel, int $step): float
    {
        return ord($this->channels[$channel][$step]) / 2 + self::SILENT;
    }

    /** Mean power of a channel over a stretch, as dBFS. */
    public function mean(int $channel, int $fromStep, int $toStep): float
    {
        $sum = 0.0;
        $bytes = substr($this->channels[$channel], $fromStep, max(0, $toStep - $fromStep));
        foreach (count_chars($bytes, 1) as $byte => $count) {
            $sum += $count * 10 ** (($byte / 2 + self::SILENT) / 10);
        }

        return $bytes === '' || $sum <= 0 ? self::SILENT : 10 * log10($sum / strlen($bytes));
    }

    /** The level under which a share of the steps of a stretch lie, of a channel. */
    public function share(int $channel, float $share, int $fromStep = 0, ?int $toStep = null): float
    {
        $bytes = substr($this->channels[$channel], $fromStep, $toStep === null ? null : max(0, $toStep - $fromStep));
        $wanted = $share * strlen($bytes);
        $seen = 0;
        foreach (count_chars($bytes, 1) as $byte => $count) {
            $seen += $count;
            if ($seen >= $wanted) {
                return $byte / 2 + self::SILENT;
            }
        }

        return self::SILENT;
    }

    /** Of the steps of a channel that are louder than some level, the level under which a share of them lie; that level where none is. */
    public function shareOver(int $channel, float $over, float $share): float
    {
        $counts = array_filter(
            count_chars($this->channels[$channel], 1),
            static fn(int $byte): bool => $byte / 2 + self::SILENT > $over,
            ARRAY_FILTER_USE_KEY,
        );
        $wanted = $share * array_sum($counts);
        foreach ($counts as $byte => $count) {
            $wanted -= $count;
            if ($wanted <= 0) {
                return $byte / 2 + self::SILENT;
            }
        }

        return $over;
    }

    /** Each step as the mean power of those around it, so that a moment between two waves is no quiet. */
    public function smoothed(int $around): self
    {
        $smooth = [];
        foreach ($this->channels as $bytes) {
            $steps = strlen($bytes);
            $power = array_map(static fn(int $byte): float => 10 ** (($byte / 2 + self::SILENT) / 10), range(0, 255));
            $sum = 0.0;
            $out = '';
            for ($at = -$around; $at < $steps; $at++) {
                $sum += $at + $around < $steps ? $power[ord($bytes[$at + $around])] : 0.0;
                $sum -= $at - $around - 1 >= 0 ? $power[ord($bytes[$at - $around - 1])] : 0.0;
                if ($at >= 0) {
                    $count = min($steps - 1, $at + $around) - max(0, $at - $around) + 1;
                    $out .= chr((int) max(0, min(200, round(2 * (10 * log10(max(1e-10, $sum / $count)) - self::SILENT)))));
                }
            }
            $smooth[] = $out;
        }

        return new self($smooth, $this->stepTicks, $this->lengthTicks, $this->before);
    }

    public function ticks(int $step): int
    {
        // The last step may be longer than what is left of the sound.
        return min($this->lengthTicks, (int) round(($this->before + $step) * $this->stepTicks));
    }

    public function step(int $ticks): int
    {
        return max(0, min($this->steps(), (int) floor($ticks / $this->stepTicks) - $this->before));
    }

    /** @return list<string> the byte of each RMS of 16 bits */
    private static function table(): array
    {
        static $table = null;

        return $table ??= array_map(
            static fn(int $rms): string => chr(
                (int) round(2 * (($rms === 0 ? self::SILENT : max(self::SILENT, 20 * log10($rms / 32768))) - self::SILENT)),
            ),
            range(0, 65535),
        );
    }
}
