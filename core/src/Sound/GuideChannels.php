<?php

declare(strict_types=1);

namespace Cartella\Core\Sound;

use Cartella\Core\Media\Exception\UnableToReadMedia;

/**
 * Which channels of a clip are its guide: those on which something happens, as far as they agree. Timecode, tones and
 * hum are none, however loud they are.
 *
 * Listens to two minutes of each channel at most, in pieces spread over the clip: interleaved 16-bit little-endian
 * samples at 8 kHz. Cost does not grow with the clip's length.
 */
final class GuideChannels
{
    /** Pieces that are listened to, and samples of each. */
    private const PIECES = 60;

    private const PIECE = 2 * GuideTrack::SAMPLE_RATE;

    /** Mean energy of a step (10 ms) below which it is as good as silent: about −75 dBFS between 300 and 3000 Hz. */
    private const SILENT = 200.0;

    /** Median energy from which what never changes is no noise floor: about −55 dBFS. */
    private const LOUD = 20_000.0;

    /** Times the median energy, 6 dB, from which something happens; and steps of that, and of sound at all, that it takes. */
    private const HAPPENS = 4.0;

    private const HAPPENING_STEPS = 5;

    private const LEAST_STEPS = 100;

    /** Correlation at no delay below which two channels take each other away. */
    private const OPPOSED = -0.5;

    /** @param  list<ChannelKind>  $kinds  in the order of the channels */
    private function __construct(public readonly array $kinds, private readonly string $path) {}

    /**
     * @param  string  $path  8 kHz samples of all channels, interleaved
     *
     * @throws UnableToReadMedia if the file cannot be read
     */
    public static function of(string $path, int $channels): self
    {
        $energies = array_fill(0, $channels, []);
        foreach (self::pieces($path, $channels) as $bytes) {
            $values = array_values(unpack('s*', $bytes) ?: []);
            foreach (array_keys($energies) as $channel) {
                array_push($energies[$channel], ...self::hear($values, $channel, $channels));
            }
        }

        return new self(array_map(self::kind(...), $energies), $path);
    }

    /**
     * The channels whose mean is the guide.
     *
     * @return non-empty-list<int> from 1
     */
    public function chosen(): array
    {
        $worth = ChannelKind::worth($this->kinds);

        return $worth === [] ? range(1, max(1, count($this->kinds))) : $this->agreeing($worth);
    }

    /** @param  list<int>  $channels  from 1, that were found to carry timecode */
    public function withTimecode(array $channels): self
    {
        $kinds = $this->kinds;
        foreach ($channels as $channel) {
            $kinds[$channel - 1] = ChannelKind::Timecode;
        }

        return new self(array_values($kinds), $this->path);
    }

    /** @param  non-empty-list<int>  $channels */
    public static function meanFilter(array $channels): string
    {
        $parts = array_map(static fn(int $channel): string => sprintf('%.6f*c%d', 1 / count($channels), $channel - 1), $channels);

        return 'pan=mono|c0=' . implode('+', $parts);
    }

    /**
     * Without those that would take the others away, such as the same microphone the wrong way round.
     *
     * @param  non-empty-list<int>  $channels
     * @return non-empty-list<int>
     */
    private function agreeing(array $channels): array
    {
        if (count($channels) === 1) {
            return $channels;
        }
        $count = count($this->kinds);
        $kept = [$channels[0]];
        $sums = [];
        foreach (self::pieces($this->path, $count) as $number => $bytes) {
            if ($number % 6 !== 0) {
                continue;
            }
            $values = unpack('s*', $bytes) ?: [];
            foreach ($channels as $x) {
                foreach ($channels as $y) {
                    if ($x > $y) {
                        continue;
                    }
                    $sum = 0;
                    for ($i = 0, $n = count($values); $i + $count <= $n; $i += $count) {
                        $sum += $values[$i + $x] * $values[$i + $y];
                    }
                    $sums[$x][$y] = ($sums[$x][$y] ?? 0.0) + $sum;
                }
            }
        }
        foreach (array_slice($channels, 1) as $channel) {
            foreach ($kept as $other) {
                $size = sqrt(($sums[$other][$other] ?? 0.0) * ($sums[$channel][$channel] ?? 0.0));
                if ($size > 0 && ($sums[$other][$channel] ?? 0.0) / $size < self::OPPOSED) {
                    continue 2;
                }
            }
            $kept[] = $channel;
        }

        return $kept;
    }

    /** @return \Generator<int, string> */
    private static function pieces(string $path, int $channels): \Generator
    {
        clearstatcache(true, $path);
        $frames = is_file($path) ? intdiv((int) filesize($path), 2 * $channels) : throw UnableToReadMedia::missing($path);
        $apart = max(self::PIECE, intdiv($frames, self::PIECES));
        for ($number = 0, $from = 0; $from < $frames; $from += $apart, $number++) {
            $bytes = @file_get_contents($path, false, null, 2 * $channels * $from, 2 * $channels * min(self::PIECE, $frames - $from));
            yield $number => $bytes === false ? throw UnableToReadMedia::missing($path) : $bytes;
        }
    }

    /**
     * Energies of the steps of one channel between about 300 and 3000 Hz.
     *
     * @param  list<int>  $values
     * @return list<float>
     */
    private static function hear(array $values, int $channel, int $channels): array
    {
        $energy = [];
        $x1 = $x2 = $x3 = $sum = $at = 0;
        for ($i = $channel, $n = count($values); $i < $n; $i += $channels) {
            $x = $values[$i];
            $band = $x + $x1 - $x2 - $x3;
            $sum += $band * $band;
            $x3 = $x2;
            $x2 = $x1;
            $x1 = $x;
            if (++$at === GuideTrack::STEP_SAMPLES) {
                $energy[] = $sum / GuideTrack::STEP_SAMPLES;
                $sum = $at = 0;
            }
        }

        return $energy;
    }

    /** @param  list<float>  $energy */
    private static function kind(array $energy): ChannelKind
    {
        $sounding = array_values(array_filter($energy, static fn(float $value): bool => $value > self::SILENT));
        // A clap and nothing else is something that happens.
        if (count($sounding) < self::LEAST_STEPS) {
            return count($sounding) < 3 ? ChannelKind::Nothing : ChannelKind::Sound;
        }
        sort($sounding);
        $usual = $sounding[intdiv(count($sounding), 2)];
        $happening = count(array_filter($sounding, static fn(float $value): bool => $value > self::HAPPENS * $usual));

        return match (true) {
            // Seldom, or all the time.
            $happening >= self::HAPPENING_STEPS,
            $sounding[intdiv(9 * count($sounding), 10)] > self::HAPPENS * $sounding[intdiv(count($sounding), 10)]
                => ChannelKind::Sound,
            $usual > self::LOUD => ChannelKind::Steady,
            default => ChannelKind::Still,
        };
    }
}
