<?php

declare(strict_types=1);

namespace Tests\App\Demo;

use Cartella\Core\Media\Probe;
use Cartella\Core\Slate\SetupName;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Time\Ticks;
use Cartella\Demo\BwfWriter;
use Cartella\Demo\Random;
use Cartella\Demo\Scenario;
use Cartella\Standins\CardBench;
use PHPUnit\Framework\TestCase;

final class DemoTest extends TestCase
{
    use Folder;

    public function test_the_seed_decides_every_number(): void
    {
        $draw = static function (int $seed): array {
            $random = new Random($seed);

            return array_map(static fn(): int => $random->between(3, 9), range(1, 200));
        };
        self::assertSame($draw(5), $draw(5));
        self::assertNotSame($draw(5), $draw(6));
        self::assertSame([3, 9], [min($draw(5)), max($draw(5))]);
    }

    public function test_the_scenario_has_what_the_demo_promises(): void
    {
        $marks = implode(' ', array_column(Scenario::TAKES, 'mark'));
        foreach (['circled', 'ng', 'mos', 'tail', 'false start'] as $case) {
            self::assertStringContainsString($case, $marks);
        }
        self::assertNotSame(
            [],
            array_filter(
                Scenario::TAKES,
                static fn(array $take): bool => !str_contains($take['on'], 'S') && str_contains($take['on'], 'AB'),
            ),
            'a take the recorder missed',
        );
        self::assertNotSame(
            [],
            array_filter(Scenario::TAKES, static fn(array $take): bool => isset($take['recorder']) && $take['recorder'] !== $take['take']),
            'a number that disagrees',
        );
        self::assertSame([5, 4, 4], array_map('count', array_values(Scenario::MEETING['clips'])));
        foreach (Scenario::MEETING['clips'] as $clips) {
            $end = 0;
            foreach ($clips as [$at, $length]) {
                self::assertGreaterThanOrEqual($end, $at, 'one camera records one clip at a time');
                self::assertTrue($length >= 15 && $length <= 70);
                $end = $at + $length;
            }
            self::assertLessThanOrEqual(Scenario::MEETING['length'], $end);
        }
        foreach (array_keys(Scenario::SETUPS) as $setup) {
            self::assertSame(Scenario::sceneOf((string) $setup), SetupName::parse((string) $setup)?->scene());
        }
    }

    public function test_a_recorder_file_says_all_that_the_scenario_knows(): void
    {
        $pcm = $this->file('samples.pcm', str_repeat("\1\2\3", 4 * 4800));
        $facts = [
            'scene' => '3A',
            'take' => '4',
            'tape' => 'S001',
            'note' => 'NG & loud <boom>',
            'circled' => true,
            'no_good' => false,
            'wild' => false,
            'uid' => 'LW1',
            'date' => '2026-10-05',
            'time' => '09:12:10',
            'samples_since_midnight' => 33_130 * 48_000,
            'tracks' => ['boom', 'lav Mara', 'lav Tobias', 'mix'],
        ];
        BwfWriter::wrap($pcm, $this->folder . '/3A-T04.wav', $facts);
        $info = Probe::file($this->folder . '/3A-T04.wav');
        self::assertSame([], $info->problems);
        self::assertSame(
            ['3A', '4', 'S001', 'NG & loud <boom>', true],
            [$info->ixml?->scene, $info->ixml->take, $info->ixml->tape, $info->ixml->note, $info->ixml->circled],
        );
        self::assertSame(
            [33_130 * Ticks::PER_SECOND, '09:12:10:00', intdiv(Ticks::PER_SECOND, 10)],
            [$info->startTicks, $info->startTimecode, $info->durationTicks],
        );
        self::assertSame(['boom', 'lav Mara', 'lav Tobias', 'mix'], array_column($info->channels, 'name'));
    }

    public function test_a_card_is_put_on_the_bench_whole_and_taken_off_without_a_trace(): void
    {
        $this->file('library/A001/ROLL/clip.mov', 'picture');
        mkdir($this->folder . '/bench');
        $bench = new CardBench($this->folder . '/library', $this->folder . '/bench');
        self::assertSame(['A001'], $bench->cards());
        $bench->insert('A001');
        $bench->insert('A001');
        self::assertFileEquals($this->folder . '/library/A001/ROLL/clip.mov', $this->folder . '/bench/A001/ROLL/clip.mov');
        $bench->eject('A001');
        $bench->eject('../library/A001');
        self::assertSame([], array_values(array_diff(scandir($this->folder . '/bench') ?: [], ['.', '..'])));
        self::assertFileExists($this->folder . '/library/A001/ROLL/clip.mov');
        $this->expectException(\InvalidArgumentException::class);
        $bench->insert('../bench');
    }
}
