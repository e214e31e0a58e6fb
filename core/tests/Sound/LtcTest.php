<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Sound;

use Cartella\Core\Command\Command;
use Cartella\Core\Sound\Internal\LtcListener;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\LtcWriter;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Instant;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LtcTest extends TestCase
{
    use Folder;

    /** @return array<string, array{string, string, string, array<string, float|bool>}> rate, first and last label, how it is played */
    public static function signals(): array
    {
        return [
            '24' => ['24', '09:59:58:20', '10:00:01:19', []],
            '25' => ['25', '23:59:58:00', '00:00:01:24', []],
            '29.97 drop over a minute' => ['29.97df', '00:00:58;10', '00:01:01;12', []],
            '30' => ['30', '01:02:03:04', '01:02:06:03', []],
            '29.97' => ['29.97', '01:02:03:04', '01:02:06:03', []],
            '23.976' => ['23.976', '01:02:03:04', '01:02:06:03', []],
            'as loud as it gets' => ['25', '10:00:00:00', '10:00:02:24', ['db' => -3]],
            'hardly there' => ['25', '10:00:00:00', '10:00:02:24', ['db' => -40]],
            'slow' => ['24', '10:00:00:00', '10:00:02:23', ['speed' => 0.9]],
            'fast' => ['30', '10:00:00:00', '10:00:02:29', ['speed' => 1.1]],
            'fast at 25, which is slow at 30' => ['25', '10:00:00:00', '10:00:03:24', ['speed' => 1.1]],
            'the other way up' => ['25', '10:00:00:00', '10:00:02:24', ['invert' => true]],
            'in noise' => ['25', '10:00:00:00', '10:00:03:24', ['db' => -20, 'snr' => 10]],
            'in noise, slow and faint' => ['24', '10:00:00:00', '10:00:03:23', ['db' => -40, 'snr' => 10, 'speed' => 0.9]],
            'in noise, fast' => ['30', '10:00:00:00', '10:00:03:29', ['snr' => 10, 'speed' => 1.1]],
            'drop in noise' => ['29.97df', '10:00:00;00', '10:00:03;29', ['db' => -30, 'snr' => 10]],
        ];
    }

    /** @param  array<string, float|bool>  $how */
    #[DataProvider('signals')]
    public function test_first_and_last_frame_are_exact(string $rate, string $first, string $last, array $how): void
    {
        $bytes = LtcWriter::write(FrameRate::parse($rate), $first, $last, ...$how);
        $read = Ltc::ofBytes($bytes);
        self::assertNotNull($read);
        self::assertSame([$first, $last], [$read->first, $read->last]);
        self::assertSame($rate, $read->rate->label());
        self::assertEqualsWithDelta(Instant::parse($first, FrameRate::parse($rate)), $read->startTicks, Ticks::PER_SECOND / 2000);
    }

    public function test_what_lies_before_the_first_whole_frame_counts_into_the_start(): void
    {
        $rate = FrameRate::parse('25');
        $bytes = substr(LtcWriter::write($rate, '10:00:00:00', '10:00:02:24'), 2 * 700);
        $read = Ltc::ofBytes(str_repeat("\0\0", 4800) . $bytes);
        self::assertSame('10:00:00:01', $read?->first);
        self::assertEqualsWithDelta(
            Instant::parse('10:00:00:00', $rate) + ((700 - 4800) * Ticks::PER_SECOND) / 48_000,
            $read->startTicks,
            Ticks::PER_SECOND / 2000,
        );
    }

    public function test_a_channel_on_which_it_begins_late_is_worth_listening_to_and_one_with_speech_is_not(): void
    {
        $late = str_repeat("\0\0", 30 * 48_000) . LtcWriter::write(FrameRate::parse('25'), '10:00:00:00', '10:00:09:24');
        $file = WavBuilder::pcm(0, 1, 16, 48_000, $late)->write("$this->folder/late.wav");
        self::assertTrue(Ltc::isLikely($file, 1, [1], 40 * Ticks::PER_SECOND));
        $speech = WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...Noise::speech(40, 3)))->write("$this->folder/speech.wav");
        self::assertFalse(Ltc::isLikely($speech, 1, [1], 40 * Ticks::PER_SECOND));
    }

    public function test_frames_that_were_lost_are_counted_through(): void
    {
        $bytes = LtcWriter::write(FrameRate::parse('25'), '10:00:00:00', '10:00:03:24');
        $hole = 2 * 1920 * 30;
        $read = Ltc::ofBytes(substr($bytes, 0, $hole) . str_repeat("\0\0", 1920 * 2) . substr($bytes, $hole + 4 * 1920));
        self::assertSame(['10:00:00:00', '10:00:03:24'], [$read?->first, $read?->last]);
    }

    public function test_it_is_heard_the_same_in_pieces_of_any_length(): void
    {
        $bytes = LtcWriter::write(FrameRate::parse('25'), '10:00:00:00', '10:00:01:24');
        $listener = new LtcListener();
        foreach (str_split($bytes, 4093) as $piece) {
            $listener->hear($piece);
        }
        $whole = new LtcListener();
        $whole->hear($bytes);
        [$frames, $same] = array_map(
            static function (LtcListener $one): array {
                $one->end();

                return iterator_to_array($one->frames());
            },
            [$whole, $listener],
        );
        self::assertCount(50, $frames);
        self::assertSame($frames, $same);
    }

    public function test_speech_noise_and_silence_carry_no_timecode(): void
    {
        mt_srand(7);
        $noise = pack('s*', ...array_map(static fn(): int => mt_rand(-9000, 9000), range(1, 96_000)));
        $tone = pack(
            's*',
            ...array_map(static fn(int $i): int => (int) (9000 * sin($i * 0.13) + 3000 * sin($i * 0.031)), range(1, 96_000)),
        );
        self::assertSame([null, null, null, null], array_map(Ltc::ofBytes(...), [$noise, $tone, str_repeat("\0\0", 48_000), '']));
    }

    public function test_the_command_finds_the_channel_and_says_when_there_is_none(): void
    {
        $rate = FrameRate::parse('25');
        $ltc = LtcWriter::write($rate, '10:00:00:00', '10:00:01:24', db: -20);
        $both = '';
        for ($at = 0; $at < strlen($ltc); $at += 2) {
            $both .= pack('v', (int) (6000 * sin($at * 0.03)) & 0xffff) . substr($ltc, $at, 2);
        }
        $file = $this->file(
            'two.wav',
            'RIFF' .
                pack('V', 36 + strlen($both)) .
                'WAVEfmt ' .
                pack('VvvVVvv', 16, 1, 2, 48_000, 192_000, 4, 16) .
                'data' .
                pack('V', strlen($both)) .
                $both,
        );
        [$status, $out] = self::command('ltc', $file);
        self::assertSame(0, $status);
        self::assertSame(['rate' => '25', 'drop' => false, 'channel' => 2], array_slice($out, 0, 3));
        self::assertSame(['10:00:00:00', '10:00:01:24'], $out['frames']);
        self::assertSame(1, self::command('ltc', $file, '--channel', '1')[0]);
        self::assertSame(2, self::command('ltc', $file, '--channel', '3')[0]);
        self::assertSame(3, self::command('ltc', $file . '.not')[0]);
    }

    /** @return array{int, array<string, mixed>} status and answer */
    private static function command(string ...$words): array
    {
        $out = fopen('php://memory', 'w+') ?: throw new \RuntimeException();
        $err = fopen('php://memory', 'w+') ?: throw new \RuntimeException();
        $status = (new Command($out, $err))->run(array_values($words));
        rewind($out);

        return [$status, json_decode((string) stream_get_contents($out), true) ?? []];
    }
}
