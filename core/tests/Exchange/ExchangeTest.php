<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Exchange;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Exchange\Edl\EdlWriter;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ExchangeTest extends TestCase
{
    /** @return array<string, mixed> */
    private static function item(
        string $name,
        string $rate,
        int $from,
        int $frames,
        int $at,
        string $reel = 'A001',
        ?int $clipStart = null,
    ): array {
        $rate = FrameRate::parse($rate);

        return [
            'name' => $name,
            'source' => [
                'id' => $name,
                'name' => $name,
                'path' => "proxies/$name.mp4",
                'reel' => $reel,
                'start_ticks' => Ticks::ofFrames($clipStart ?? 90_000, $rate),
                'duration_ticks' => Ticks::ofFrames(100_000, $rate),
            ],
            'source_start_ticks' => Ticks::ofFrames($from, $rate),
            'duration_ticks' => Ticks::ofFrames($frames, $rate),
            'record_start_ticks' => Ticks::ofFrames($at, $rate),
        ];
    }

    /** @param  list<array<string, mixed>>  $picture @param  list<array<string, mixed>>  $sound */
    private static function sequence(string $rate, array $picture, array $sound = []): Sequence
    {
        return Sequence::fromArray([
            'title' => 'Day 1',
            'rate' => $rate,
            'start_ticks' => Ticks::ofFrames(90_000, FrameRate::parse($rate)),
            'tracks' => [['kind' => 'picture', 'items' => $picture], ...$sound === [] ? [] : [['kind' => 'sound', 'items' => $sound]]],
        ]);
    }

    public function test_an_edit_list_names_reels_clips_and_four_labels(): void
    {
        $text = implode(
            '',
            EdlWriter::write(
                self::sequence('25', [self::item('A001C001', '25', 10, 50, 0), self::item('3_T02_B', '25', 0, 25, 75, 'LONGREEL001')]),
            ),
        );
        self::assertSame(
            implode("\r\n", [
                'TITLE: Day 1',
                'FCM: NON-DROP FRAME',
                '',
                '001  A001     V     C        01:00:00:10 01:00:02:10 01:00:00:00 01:00:02:00',
                '* FROM CLIP NAME: A001C001',
                '* SOURCE FILE: A001C001.mp4',
                '002  LONGREEL V     C        01:00:00:00 01:00:01:00 01:00:03:00 01:00:04:00',
                '* FROM CLIP NAME: 3_T02_B',
                '* SOURCE FILE: 3_T02_B.mp4',
                '* REEL: LONGREEL001',
                '',
            ]),
            $text,
        );
    }

    public function test_drop_frame_is_said_and_its_labels_are_used(): void
    {
        $text = EdlWriter::write(self::sequence('29.97df', [self::item('A', '29.97df', 0, 60, 0)]))[0];
        self::assertStringContainsString("FCM: DROP FRAME\r\n", $text);
        self::assertMatchesRegularExpression('/\d\d:\d\d:\d\d;\d\d \d\d:\d\d:\d\d;\d\d/', $text);
    }

    public function test_the_thousandth_event_begins_a_second_file(): void
    {
        $files = EdlWriter::write(
            self::sequence('25', array_map(static fn(int $n): array => self::item('C' . $n, '25', 0, 5, 5 * $n), range(0, 999))),
        );
        self::assertCount(2, $files);
        self::assertStringContainsString('999  A001', $files[0]);
        self::assertStringContainsString("001  A001     V     C        01:00:00:00 01:00:00:05 01:03:19:20 01:03:20:00\r\n", $files[1]);
    }

    public function test_a_hostile_name_stays_on_its_line(): void
    {
        $text = EdlWriter::write(self::sequence('25', [self::item("evil\r\n002  X V C", '25', 0, 5, 0)]))[0];
        self::assertSame(1, preg_match_all('/^\d{3}  /m', $text));
    }

    public function test_otio_has_gaps_ranges_and_the_media_of_each_clip(): void
    {
        $timeline = json_decode(
            OtioWriter::write(self::sequence('23.976', [self::item('A', '23.976', 10, 24, 12)], [self::item('S', '23.976', 0, 36, 0)])),
            true,
        );
        self::assertSame('Timeline.1', $timeline['OTIO_SCHEMA']);
        self::assertEqualsWithDelta(24000 / 1001, $timeline['global_start_time']['rate'], 1e-12);
        [$gap, $clip] = $timeline['tracks']['children'][0]['children'];
        self::assertSame(['Gap.1', 12.0], [$gap['OTIO_SCHEMA'], (float) $gap['source_range']['duration']['value']]);
        self::assertSame(
            ['Clip.2', 24.0, 90_010.0],
            [
                $clip['OTIO_SCHEMA'],
                (float) $clip['source_range']['duration']['value'],
                (float) $clip['source_range']['start_time']['value'],
            ],
        );
        self::assertSame('proxies/A.mp4', $clip['media_references'][$clip['active_media_reference_key']]['target_url']);
        self::assertSame(['Video', 'Audio'], array_column($timeline['tracks']['children'], 'kind'));
        self::assertSame(Ticks::ofFrames(10, FrameRate::parse('23.976')), $clip['metadata']['cartella']['source_start_ticks']);
    }

    public function test_the_same_sequence_gives_the_same_bytes(): void
    {
        $sequence = self::sequence('25', [self::item('A', '25', 0, 5, 0)]);
        self::assertSame(
            OtioWriter::write($sequence),
            OtioWriter::write(Sequence::fromArray(json_decode((string) json_encode($sequence->toArray()), true))),
        );
    }

    /** @return array<string, array{array<string, mixed>, string}> */
    public static function impossible(): array
    {
        $ok = self::item('A', '25', 0, 50, 0);

        return [
            'overlap' => [['tracks' => [['kind' => 'picture', 'items' => [$ok, self::item('B', '25', 0, 50, 49)]]]], 'overlaps'],
            'no length' => [['tracks' => [['kind' => 'picture', 'items' => [['duration_ticks' => 0] + $ok]]]], 'no time'],
            'before its source' => [
                ['tracks' => [['kind' => 'picture', 'items' => [['source_start_ticks' => -1] + $ok]]]],
                'outside its source',
            ],
            'a float for ticks' => [
                ['tracks' => [['kind' => 'picture', 'items' => [['duration_ticks' => 1.5] + $ok]]]],
                'whole number of ticks',
            ],
            'beyond 64 bits' => [
                ['tracks' => [['kind' => 'picture', 'items' => [['record_start_ticks' => PHP_INT_MAX] + $ok]]]],
                'whole number of ticks',
            ],
            'an unknown rate' => [['rate' => '26'], 'frame rate'],
            'an unknown kind of track' => [['tracks' => [['kind' => 'smell', 'items' => []]]], 'neither picture nor sound'],
            'tracks that are text' => [['tracks' => 'all'], 'not an object'],
        ];
    }

    /** @param  array<string, mixed>  $change */
    #[DataProvider('impossible')]
    public function test_a_sequence_that_cannot_be_is_refused_with_its_place(array $change, string $why): void
    {
        $this->expectException(InvalidSequence::class);
        $this->expectExceptionMessage($why);
        Sequence::fromArray($change + ['title' => 'x', 'rate' => '25', 'tracks' => []]);
    }

    public function test_a_cell_that_a_spreadsheet_would_run_is_escaped_and_a_number_is_not(): void
    {
        self::assertSame(
            "a,b\r\n'=1+1,-5\r\n'+x,\"one, \"\"two\"\"\"\r\n'@x,\r\n",
            CsvWriter::write(['a', 'b'], [['=1+1', -5], ['+x', 'one, "two"'], ['@x', null]]),
        );
    }
}
