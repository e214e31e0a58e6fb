<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Time;

use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Instant;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class InstantTest extends TestCase
{
    /** @return array<string, array{string, string, int}> */
    public static function forms(): array
    {
        return [
            'ticks' => ['25', 'ticks:-7', -7],
            'frames at a dropped rate' => ['59.94', 'frames:60', 60 * 11_771_760],
            'samples of another rate' => ['25', 'samples@44100:44100', Ticks::PER_SECOND],
            'a decimal with nine places' => ['25', 'seconds:0.000000001', 0],
            'a decimal below zero rounds to the past' => ['25', 'seconds:-0.000000001', -1],
            'a fraction' => ['25', 'seconds:-1/3', -235_200_000],
            'a label' => ['23.976', '00:00:01:00', 24 * 29_429_400],
        ];
    }

    #[DataProvider('forms')]
    public function test_each_form_is_read_exactly(string $rate, string $text, int $ticks): void
    {
        self::assertSame($ticks, Instant::parse($text, FrameRate::parse($rate)));
    }

    /** @return array<string, array{string}> */
    public static function nonsense(): array
    {
        return [
            'no amount' => ['frames:'],
            'a float of frames' => ['frames:1.5'],
            'a sample rate of none' => ['samples@0:1'],
            'division by zero' => ['seconds:1/0'],
            'more decimals than are kept' => ['seconds:0.1234567891'],
            'an exponent' => ['seconds:1e3'],
            'beyond 64 bits' => ['ticks:9999999999999999999'],
            'longer than ten thousand days' => ['seconds:864000001'],
            'a word' => ['noon'],
            'an unknown unit' => ['feet:1'],
            'text after it' => ["frames:1\nframes:2"],
        ];
    }

    #[DataProvider('nonsense')]
    public function test_what_is_no_amount_is_refused(string $text): void
    {
        $this->expectException(InvalidTime::class);
        Instant::parse($text, FrameRate::parse('25'));
    }

    public function test_reading_what_was_written_gives_the_same_instant(): void
    {
        $rate = FrameRate::parse('29.97df');
        foreach ([0, 1, 1799, 1800, 17_982, 2_589_407] as $frame) {
            $ticks = Ticks::ofFrames($frame, $rate);
            foreach (['timecode' => '', 'frames' => 'frames:', 'ticks' => 'ticks:', 'seconds' => 'seconds:'] as $unit => $prefix) {
                self::assertSame($ticks, Instant::parse($prefix . Instant::write($ticks, $unit, $rate), $rate), "$unit of frame $frame");
            }
        }
    }

    public function test_products_beyond_64_bits_stay_exact(): void
    {
        $samples = 192_000 * 86_400 * 9_000;
        self::assertSame(86_400 * 9_000 * Ticks::PER_SECOND, Ticks::ofSamples($samples, 192_000));
        self::assertSame($samples, Ticks::toSamples(86_400 * 9_000 * Ticks::PER_SECOND, 192_000));
        self::assertSame(-4, Ticks::mulDivFloor(-10, 1, 3));
    }

    /** @return array<string, array{float, string|null}> */
    public static function measured(): array
    {
        return [
            'exact' => [25.0, '25'],
            'rounded by a container' => [23.98, '23.976'],
            'three places' => [29.97, '29.97'],
            'between two rates' => [29.985, null],
            'nothing' => [0.0, null],
            'a clock of its own' => [1000.0, null],
        ];
    }

    #[DataProvider('measured')]
    public function test_a_measured_rate_is_the_known_one_beside_it_or_none(float $measured, ?string $name): void
    {
        self::assertSame($name, FrameRate::near($measured)?->name);
    }

    public function test_drop_frame_exists_at_two_rates_only(): void
    {
        foreach (['23.976', '24', '25', '30', '60', '119.88'] as $name) {
            self::assertFalse(FrameRate::parse($name)->allowsDropFrame(), $name);
        }
        $this->expectException(InvalidTime::class);
        FrameRate::parse('25df');
    }
}
