<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Time;

use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Cartella\Core\Time\TimeOfDay;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TimecodeTest extends TestCase
{
    /** @return array<string, array{string, int, string}> rate, frames, label */
    public static function labels(): array
    {
        return [
            'midnight' => ['25', 0, '00:00:00:00'],
            'one label before the skip' => ['29.97df', 1799, '00:00:59;29'],
            'two labels are skipped in a minute' => ['29.97df', 1800, '00:01:00;02'],
            'none is skipped in a tenth minute' => ['29.97df', 17982, '00:10:00;00'],
            'last label of the ninth minute' => ['29.97df', 17981, '00:09:59;29'],
            'an hour of drop frame' => ['29.97df', 107892, '01:00:00;00'],
            'last frame of a drop-frame day' => ['29.97df', 2589407, '23:59:59;29'],
            'four labels at nominal 60' => ['59.94df', 3600, '00:01:00;04'],
            'counted through at 29.97' => ['29.97', 1800, '00:01:00:00'],
            'counted straight above 60' => ['100', 99, '00:00:00:99'],
            'three digits above 100' => ['120', 119, '00:00:00:119'],
            '23.976 counts 24 labels' => ['23.976', 86399, '00:59:59:23'],
        ];
    }

    #[DataProvider('labels')]
    public function test_frames_and_labels_convert_both_ways(string $rate, int $frames, string $label): void
    {
        $rate = FrameRate::parse($rate);
        self::assertSame($label, Timecode::label($frames, $rate));
        self::assertSame($frames, Timecode::parse($label, $rate));
    }

    #[DataProvider('dropRates')]
    public function test_counting_through_a_whole_drop_frame_day_meets_every_label_once_and_in_order(string $name, int $step): void
    {
        $rate = FrameRate::parse($name);
        $drop = $rate->droppedPerMinute();
        $count = 0;
        for ($minute = 0; $minute < 1440; $minute++) {
            for ($second = 0; $second < 60; $second += $step) {
                $first = $second === 0 && $minute % 10 !== 0 ? $drop : 0;
                $label = sprintf('%02d:%02d:%02d;%02d', intdiv($minute, 60), $minute % 60, $second, $first);
                self::assertSame($count, Timecode::parse($label, $rate), $label);
                self::assertSame($label, Timecode::label($count, $rate));
                $count += $step * $rate->nominal - $first;
            }
        }
        self::assertSame($rate->labelsPerDay(), $count);
    }

    /** @return array<string, array{string, int}> */
    public static function dropRates(): array
    {
        return ['29.97' => ['29.97df', 20], '59.94' => ['59.94df', 30]];
    }

    /** @return array<string, array{string, string}> */
    public static function refused(): array
    {
        return [
            'a skipped label' => ['29.97df', '00:01:00;00'],
            'a skipped label with a dot' => ['29.97', '00:01:00.01'],
            'four are skipped at 59.94' => ['59.94df', '00:01:00;03'],
            'drop frame where nothing drops' => ['25', '00:00:00;00'],
            'drop frame at 23.976' => ['23.976', '00:00:00;00'],
            'hours over 23' => ['25', '24:00:00:00'],
            'minutes over 59' => ['25', '00:60:00:00'],
            'frames beyond the rate' => ['25', '00:00:00:25'],
            'three digits at 60' => ['60', '00:00:00:010'],
            'three digits at 100' => ['100', '00:00:00:010'],
            'letters' => ['25', 'aa:00:00:00'],
            'a newline at the end' => ['25', "00:00:00:00\n"],
            'nothing' => ['25', ''],
            'other digits than ASCII' => ['25', '００:00:00:00'],
        ];
    }

    #[DataProvider('refused')]
    public function test_what_is_no_label_is_refused(string $rate, string $label): void
    {
        $this->expectException(InvalidTime::class);
        Timecode::parse($label, FrameRate::parse($rate));
    }

    public function test_labels_wrap_at_midnight_and_lengths_carry_a_sign(): void
    {
        $rate = FrameRate::parse('25');
        self::assertSame('00:00:00:00', Timecode::label($rate->labelsPerDay(), $rate));
        self::assertSame('23:59:59:24', Timecode::label(-1, $rate));
        self::assertSame('-00:00:00:01', Timecode::duration(-1, $rate));
        self::assertSame(-26, Timecode::parse('-00:00:01:01', $rate));
    }

    #[DataProvider('rates')]
    public function test_a_frame_is_a_whole_count_of_ticks_at_every_rate(string $name): void
    {
        $rate = FrameRate::parse($name);
        self::assertSame(0, (Ticks::PER_SECOND * $rate->den) % $rate->num);
        foreach ([0, 1, 1001, 2_589_407, -7] as $frame) {
            $ticks = Ticks::ofFrames($frame, $rate);
            self::assertSame($frame, Ticks::toFrames($ticks, $rate));
            self::assertSame($frame - 1, Ticks::toFrames($ticks - 1, $rate), 'an instant belongs to the frame that holds it');
            self::assertSame(
                $frame,
                Ticks::toFrames(Ticks::ofSamples(Ticks::toSamples($ticks, 48_000), 48_000), $rate),
                'a label found from a sample comes back',
            );
        }
    }

    /** @return array<string, array{string}> */
    public static function rates(): array
    {
        $names = ['23.976', '24', '25', '29.97', '30', '47.952', '48', '50', '59.94', '60', '100', '119.88', '120'];

        return array_combine($names, array_map(static fn(string $name): array => [$name], $names));
    }

    public function test_a_day_of_ticks_fits_the_numbers_of_json(): void
    {
        self::assertLessThan(2 ** 53, Ticks::PER_DAY);
    }

    public function test_times_past_midnight_belong_to_the_day_that_began_before_it_however_long_it_was(): void
    {
        $ticks = static fn(float $hour): int => (int) ($hour * 3600 * Ticks::PER_SECOND);
        $hours = static fn(float ...$times): array => array_map($ticks, $times);
        $long = TimeOfDay::unwrapped($hours(...['first' => 11.0, 'noon' => 15.5, 'evening' => 22.0, 'night' => 0.5, 'last' => 1.0]));
        self::assertSame($hours(...['first' => 11.0, 'noon' => 15.5, 'evening' => 22.0, 'night' => 24.5, 'last' => 25.0]), $long);
        $plain = $hours(...['first' => 7.0, 'last' => 19.0]);
        self::assertSame($plain, TimeOfDay::unwrapped($plain), 'a day that does not pass midnight stays as it is');
        $reference = TimeOfDay::ofTimeReference(48_000 * (23 * 3600 + 59 * 60 + 50), 48_000);
        $days = TimeOfDay::unwrapped(['before' => $reference, 'after' => TimeOfDay::ofTimeReference(48_000 * 15, 48_000)]);
        self::assertSame(25 * Ticks::PER_SECOND, $days['after'] - $days['before']);
    }

    public function test_feet_count_sixteen_frames(): void
    {
        self::assertSame('12+07', Timecode::feet(199));
    }
}
