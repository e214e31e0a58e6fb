<?php

declare(strict_types=1);

namespace Cartella\Bench;

use Cartella\Demo\Random;
use Symfony\Component\Process\Process;

/**
 * Sound to measure line-up with, all of it from a seed: dialogue of made-up sentences spoken by a synthesiser, and what
 * bad microphones, rooms and clocks make of it. Samples are lists of floats at 48 kHz, full scale 1.
 */
final class LineupMaterial
{
    public const RATE = 48_000;

    private const SPOKEN_RATE = 22_050;

    private const WORDS = [
        'tide',
        'mill',
        'harbour',
        'sluice',
        'ledger',
        'water',
        'morning',
        'surveyor',
        'gate',
        'wheel',
        'carrow',
        'causeway',
        'lantern',
        'barley',
        'timber',
        'rope',
        'storm',
        'island',
        'letter',
        'keeper',
        'stone',
        'winter',
        'boat',
        'channel',
        'measure',
        'rises',
        'holds',
        'turns',
        'carries',
        'never',
        'always',
        'under',
        'before',
        'after',
        'against',
        'without',
        'every',
        'seven',
        'hundred',
        'old',
        'broken',
        'quiet',
        'the',
        'a',
        'of',
        'and',
        'to',
        'in',
        'we',
        'they',
        'you',
        'will',
        'must',
        'have',
    ];

    private const VOICES = ['en-gb', 'en-us', 'en-gb-scotland', 'en-gb-x-rp', 'en-gb+f3', 'en-us+m4', 'en-gb+f1', 'en-us+m7'];

    /** Voices and words that nothing was tuned on, for the second column of {@see LineupConditions}. */
    private const OTHER_VOICES = ['en-gb-x-gbclan', 'en-029', 'en-us+f5', 'en-gb+m2', 'en-gb-scotland+f2', 'en-us+m1', 'en-029+f4'];

    private const OTHER_WORDS = [
        ...['ferry', 'garden', 'copper', 'window', 'brother', 'summer', 'needle', 'orchard', 'saddle', 'thunder', 'village', 'yellow'],
        ...['candle', 'bridge', 'pepper', 'quarry', 'ribbon', 'kettle', 'where', 'nobody', 'someone', 'into', 'along', 'until', 'their'],
        ...['our', 'with', 'from', 'could', 'shall', 'went', 'stood', 'brought', 'asked', 'answered', 'three', 'fourteen', 'an', 'this'],
    ];

    /** @param  bool  $isOther  other voices, which say other words */
    public function __construct(private readonly string $folder, private readonly bool $isOther = false)
    {
        is_dir($folder) || mkdir($folder, 0o700, true);
    }

    /** The file of a dialogue of that length, mono at 48 kHz with a little room tone; made once for each seed. */
    public function dialogue(int $seconds, int $seed): string
    {
        $file = "$this->folder/dialogue-$seed-$seconds.wav";
        if (is_file($file)) {
            return $file;
        }
        $random = new Random($seed);
        $raw = fopen("$file.raw", 'wb');
        for ($bytes = 0; $bytes < $seconds * self::SPOKEN_RATE * 2; ) {
            $spoken = $this->sentence($random) . str_repeat("\0\0", (int) (self::SPOKEN_RATE * (0.1 + 1.6 * $random->unit() ** 2)));
            fwrite($raw, $spoken);
            $bytes += strlen($spoken);
        }
        fclose($raw);
        self::ffmpeg([
            '-f',
            's16le',
            '-ar',
            (string) self::SPOKEN_RATE,
            '-ac',
            '1',
            '-i',
            "$file.raw",
            '-filter_complex',
            "[0:a]aresample=48000,volume=0.6[d];anoisesrc=c=brown:r=48000:a=0.01:seed={$seed}[n];" .
            '[d][n]amix=inputs=2:normalize=0:duration=first,atrim=end_sample=' .
            $seconds * self::RATE,
            '-c:a',
            'pcm_s16le',
            $file,
        ]);
        unlink("$file.raw");

        return $file;
    }

    /** @param  list<string>  $arguments */
    public static function ffmpeg(array $arguments): void
    {
        (new Process(['ffmpeg', '-v', 'error', '-nostdin', '-y', ...$arguments], timeout: 900))->mustRun();
    }

    /** @return list<float> */
    public static function cut(string $wav, int $from, int $samples): array
    {
        $bytes = (string) file_get_contents($wav, false, null, self::dataAt($wav) + 2 * $from, 2 * $samples);
        $values = array_values(unpack('s*', $bytes) ?: []);
        foreach ($values as $at => $value) {
            $values[$at] = $value / 32768;
        }

        return $values;
    }

    /** @param  list<float>  $samples */
    public static function write(string $file, array $samples, int $rate = self::RATE): void
    {
        $out = '';
        foreach (array_chunk($samples, 65_536) as $piece) {
            foreach ($piece as $at => $value) {
                $piece[$at] = (int) max(-32768, min(32767, round($value * 32768)));
            }
            $out .= pack('s*', ...$piece);
        }
        file_put_contents(
            $file,
            'RIFF' .
                pack('V', 36 + strlen($out)) .
                'WAVEfmt ' .
                pack('VvvVVvv', 16, 1, 1, $rate, 2 * $rate, 2, 16) .
                'data' .
                pack('V', strlen($out)) .
                $out,
        );
    }

    /**
     * Noise as strong as the sound, less the ratio; white, or pink as rooms are.
     *
     * @param  list<float>  $samples
     * @return list<float>
     */
    public static function noisy(array $samples, float $snr, bool $pink, Random $random): array
    {
        $noise = [];
        $state = [0.0, 0.0, 0.0];
        $power = 0.0;
        for ($at = 0, $count = count($samples); $at < $count; $at++) {
            $white = 2 * $random->unit() - 1;
            if ($pink) {
                $state[0] = 0.99765 * $state[0] + $white * 0.099046;
                $state[1] = 0.963 * $state[1] + $white * 0.2965164;
                $state[2] = 0.57 * $state[2] + $white * 1.0526913;
                $white = $state[0] + $state[1] + $state[2] + $white * 0.1848;
            }
            $noise[] = $white;
            $power += $white * $white;
        }
        $gain = sqrt(self::power($samples) / max(1e-12, $power / max(1, $count)) / 10 ** ($snr / 10));
        foreach ($samples as $at => $value) {
            $samples[$at] = $value + $gain * $noise[$at];
        }

        return $samples;
    }

    /**
     * A telephone's band: two second-order sections at each end, 300 to 3400 Hz.
     *
     * @param  list<float>  $samples
     * @return list<float>
     */
    public static function narrow(array $samples): array
    {
        foreach ([[300.0, true], [300.0, true], [3400.0, false], [3400.0, false]] as [$hertz, $high]) {
            $w = (2 * M_PI * $hertz) / self::RATE;
            $alpha = sin($w) / M_SQRT2;
            $c = cos($w);
            $b1 = $high ? -(1 + $c) : 1 - $c;
            $b0 = abs($b1) / 2;
            $x1 = $x2 = $y1 = $y2 = 0.0;
            foreach ($samples as $at => $x) {
                $y = ($b0 * $x + $b1 * $x1 + $b0 * $x2 + 2 * $c * $y1 - (1 - $alpha) * $y2) / (1 + $alpha);
                $x2 = $x1;
                $x1 = $x;
                $y2 = $y1;
                $y1 = $y;
                $samples[$at] = $y;
            }
        }

        return $samples;
    }

    /**
     * A room: the direct sound and forty reflections that fade over four tenths of a second, together as strong as it.
     *
     * @param  list<float>  $samples
     * @return list<float>
     */
    public static function echoing(array $samples, Random $random): array
    {
        $out = $samples;
        for ($tap = 0; $tap < 40; $tap++) {
            $delay = (int) (self::RATE * (0.004 + 0.4 * $random->unit() ** 1.5));
            $gain = ($random->unit() < 0.5 ? -1 : 1) * 0.28 * exp((-3.0 * $delay) / (0.4 * self::RATE));
            for ($at = $delay, $count = count($samples); $at < $count; $at++) {
                $out[$at] += $gain * $samples[$at - $delay];
            }
        }

        return array_map(static fn(float $value): float => 0.7 * $value, $out);
    }

    /**
     * What a recorder whose crystal runs fast by that much writes down: more samples for the same time. Cubic between samples.
     *
     * @param  list<float>  $samples
     * @return list<float>
     */
    public static function drifting(array $samples, float $ppm): array
    {
        $out = [];
        $step = 1 / (1 + $ppm * 1e-6);
        for ($n = 0, $last = count($samples) - 3; ($position = $n * $step) < $last; $n++) {
            $at = (int) $position;
            $t = $position - $at;
            $p0 = $samples[max(0, $at - 1)];
            $p1 = $samples[$at];
            $p2 = $samples[$at + 1];
            $p3 = $samples[$at + 2];
            $out[] = $p1 + 0.5 * $t * ($p2 - $p0 + $t * (2 * $p0 - 5 * $p1 + 4 * $p2 - $p3 + $t * (3 * ($p1 - $p2) + $p3 - $p0)));
        }

        return $out;
    }

    /**
     * @param  list<float>  $samples
     * @return list<float>
     */
    public static function louder(array $samples, float $decibels): array
    {
        $gain = 10 ** ($decibels / 20);

        return array_map(static fn(float $value): float => $gain * $value, $samples);
    }

    /** @param  list<float>  $samples */
    private static function power(array $samples): float
    {
        $sum = 0.0;
        foreach ($samples as $value) {
            $sum += $value * $value;
        }

        return $sum / max(1, count($samples));
    }

    private function sentence(Random $random): string
    {
        $words = [];
        for ($count = 3 + (int) (9 * $random->unit()); $count > 0; $count--) {
            $words[] = self::oneOf($this->isOther ? self::OTHER_WORDS : self::WORDS, $random);
        }

        return $this->spoken(implode(' ', $words) . '.', $random);
    }

    /** @param  non-empty-list<string>  $all */
    private static function oneOf(array $all, Random $random): string
    {
        return $all[(int) (count($all) * $random->unit())];
    }

    /** @return string samples at 22.05 kHz; another voice, speed and pitch each time */
    public function spoken(string $text, Random $random): string
    {
        $speech = (new Process([
            'espeak-ng',
            '-v',
            self::oneOf($this->isOther ? self::OTHER_VOICES : self::VOICES, $random),
            '-s',
            (string) (130 + (int) (60 * $random->unit())),
            '-p',
            (string) (25 + (int) (50 * $random->unit())),
            '--stdout',
            '--',
            $text,
        ]))
            ->mustRun()
            ->getOutput();

        return substr($speech, self::headerOf($speech));
    }

    private static function dataAt(string $wav): int
    {
        return self::headerOf((string) file_get_contents($wav, false, null, 0, 4096));
    }

    private static function headerOf(string $bytes): int
    {
        return (int) strpos($bytes, 'data') + 8;
    }
}
