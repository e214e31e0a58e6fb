<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Command;

use Cartella\Core\Process;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Tests\Support\WavBuilder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The contract of `core/bin/cartella-core`, from outside: standard output, standard error and exit status. */
final class CommandTest extends TestCase
{
    use Folder;

    /**
     * @param  list<string>  $words
     * @return array{int, mixed, mixed} status, answer, error
     */
    private static function command(array $words): array
    {
        $run = Process::run([__DIR__ . '/../../bin/cartella-core', ...$words]);
        $lines = explode("\n", trim($run['output']));

        return [$run['status'], json_decode((string) end($lines), true) ?? $run['output'], json_decode($run['error'], true)];
    }

    /** @return array<string, array{list<string>, mixed, string, int}> options, value, label, ticks */
    public static function conversions(): array
    {
        return [
            'a label to frames' => [['--rate', '25', '--from', '00:00:01:01', '--to', 'frames'], 26, '00:00:01:01', 733_824_000],
            'frames to a drop-frame label' => [
                ['--rate', '29.97df', '--from', 'frames:1800', '--to', 'timecode'],
                '00:01:00;02',
                '00:01:00;02',
                42_378_336_000,
            ],
            'a dropped rate to samples' => [
                ['--rate', '29.97df', '--from', 'frames:30', '--to', 'samples@48000'],
                48048,
                '00:00:01;00',
                706_305_600,
            ],
            'seconds as a decimal' => [['--rate', '24', '--from', 'seconds:1.5', '--to', 'frames'], 36, '00:00:01:12', 1_058_400_000],
            'seconds as a fraction' => [
                ['--rate', '24', '--from', 'seconds:1001/24000', '--to', 'seconds'],
                '1001/24000',
                '00:00:00:01',
                29_429_400,
            ],
            'samples to a label' => [
                ['--rate', '25', '--from', 'samples@48000:1920', '--to', 'timecode'],
                '00:00:00:01',
                '00:00:00:01',
                28_224_000,
            ],
            'to another rate through real time' => [
                ['--rate', '25', '--from', '01:00:00:00', '--to', 'timecode', '--to-rate', '23.976'],
                '00:59:56:09',
                '00:59:56:09',
                2_540_160_000_000,
            ],
            'a label wraps at midnight' => [
                ['--rate', '25', '--from', 'seconds:86401', '--to', 'timecode'],
                '00:00:01:00',
                '00:00:01:00',
                86_401 * 705_600_000,
            ],
            'frames do not wrap' => [
                ['--rate', '25', '--from', 'seconds:86401', '--to', 'frames'],
                2_160_025,
                '00:00:01:00',
                86_401 * 705_600_000,
            ],
            'below zero' => [['--rate', '25', '--from', 'frames:-1', '--to', 'timecode'], '-00:00:00:01', '-00:00:00:01', -28_224_000],
        ];
    }

    /** @param  list<string>  $options */
    #[DataProvider('conversions')]
    public function test_timecode_converts_exactly(array $options, mixed $value, string $label, int $ticks): void
    {
        self::assertSame([0, ['value' => $value, 'timecode' => $label, 'ticks' => $ticks], null], self::command(['timecode', ...$options]));
    }

    /** @return array<string, array{list<string>, int}> */
    public static function refusals(): array
    {
        return [
            'no command' => [['dance'], 2],
            'an unknown option' => [['timecode', '--speed', '1'], 2],
            'an option without its value' => [['timecode', '--rate'], 2],
            'an unknown rate' => [['timecode', '--rate', '26', '--from', 'frames:1', '--to', 'frames'], 2],
            'a dropped label' => [['timecode', '--rate', '29.97df', '--from', '00:01:00;00', '--to', 'frames'], 2],
            'an unknown unit' => [['timecode', '--rate', '25', '--from', 'frames:1', '--to', 'moons'], 2],
            'beyond all days' => [['timecode', '--rate', '25', '--from', 'frames:999999999999999999', '--to', 'frames'], 2],
            'a file that is missing' => [['probe', '/nowhere/at/all.wav'], 3],
            'no file named' => [['probe'], 2],
            'an unknown hash' => [['offload', '/tmp', '/tmp/x', '--hash', 'crc'], 2],
            'a source that is missing' => [['offload', '/nowhere/at/all', '/tmp/x'], 3],
            'a folder without manifest' => [['verify', __DIR__], 3],
            'an unknown style' => [['slate', '12A-3', '--style', 'roman'], 2],
            'a line-up that is missing' => [['lineup', '/nowhere.json'], 3],
            'an edit list of nothing' => [['json2edl', '/nowhere.json'], 3],
        ];
    }

    /** @param  list<string>  $words */
    #[DataProvider('refusals')]
    public function test_a_refusal_is_one_json_object_with_a_code_and_a_fix(array $words, int $status): void
    {
        [$met, , $error] = self::command($words);
        self::assertSame($status, $met);
        self::assertSame(['code', 'message', 'fix', 'context'], array_keys($error));
    }

    public function test_slate_sorts_and_puts_the_unreadable_last(): void
    {
        [$status, $answer] = self::command(['slate', '--sort', 'tone', '12A-1', '3B-2', '3-10', '3-2']);
        self::assertSame(0, $status);
        self::assertSame(['3-2', '3-10', '3B-2', '12A-1', 'tone'], array_column($answer, 'name'));
        self::assertSame(['name' => 'tone', 'scene' => null, 'setup' => null, 'take' => null, 'device' => null], end($answer));
    }

    public function test_a_name_that_begins_with_a_dash_is_given_after_two(): void
    {
        self::assertSame(0, self::command(['slate', '--', '-rf'])[0]);
    }

    public function test_offload_reports_and_verify_agrees_and_notices_damage(): void
    {
        $this->file('A001/clip.mov', 'picture');
        [$status, $answer] = self::command(['offload', $this->folder . '/A001', $this->folder . '/one', $this->folder . '/two']);
        self::assertSame([0, 1, 7, 1, []], [$status, $answer['files'], $answer['bytes'], $answer['verified'], $answer['faults']]);
        self::assertSame(0, self::command(['verify', $this->folder . '/one/A001'])[0]);
        file_put_contents($this->folder . '/one/A001/clip.mov', 'damaged');
        [$status, $answer] = self::command(['verify', $this->folder . '/one/A001']);
        self::assertSame([1, ['clip.mov']], [$status, $answer['altered']]);
        self::assertSame(2, self::command(['offload', $this->folder . '/A001', $this->folder . '/A001/inside'])[0]);
    }

    public function test_lineup_reads_files_and_makes_a_stray_of_what_it_cannot(): void
    {
        $stage = Noise::speech(20, 12);
        WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...$stage))->write($this->folder . '/s.wav');
        WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...array_slice($stage, 24_000, 80_000)))->write($this->folder . '/a.wav');
        $manifest = $this->file(
            'day.json',
            (string) json_encode([
                'clips' => [
                    ['id' => 'S', 'device' => 'S', 'path' => 's.wav'],
                    ['id' => 'A', 'device' => 'A', 'path' => 'a.wav'],
                    ['id' => 'gone', 'device' => 'B', 'path' => 'gone.mov'],
                ],
                'ways' => ['sound'],
            ]),
        );
        [$status, $answer] = self::command(['lineup', $manifest]);
        self::assertSame([0, 'S', ['gone']], [$status, $answer['zero'], array_column($answer['strays'], 'id')]);
        $place = array_column($answer['placements'], null, 'id')['A'];
        self::assertEqualsWithDelta(3 * 705_600_000, $place['start_ticks'], 14_700 * 10);
        self::assertSame(['sound', true, 0], [$place['way'], $place['sure'], $place['group']]);
        $manifest = $this->file('bad.json', '{"clips":[],"ways":["smell"]}');
        self::assertSame(2, self::command(['lineup', $manifest])[0]);
    }

    public function test_probe_and_peaks_answer_for_a_recorder_file(): void
    {
        $file = WavBuilder::pcm(4800, 4)
            ->withBext(0)
            ->write($this->folder . '/r.wav');
        [$status, $answer] = self::command(['probe', $file]);
        self::assertSame([0, 4], [$status, count($answer[0]['channels'])]);
        self::assertSame(
            ['channels' => 4, 'buckets' => 19, 'bucket_samples' => 256, 'levels' => 6],
            self::command(['peaks', $file, '-o', $this->folder . '/p'])[1],
        );
    }

    public function test_a_sequence_becomes_an_edit_list_and_a_timeline(): void
    {
        $source = ['id' => 'x', 'name' => 'A001C001', 'reel' => 'A001', 'start_ticks' => 0, 'duration_ticks' => 705_600_000];
        $file = $this->file(
            'cut.json',
            (string) json_encode([
                'title' => 'Cut',
                'rate' => '25',
                'tracks' => [
                    [
                        'kind' => 'picture',
                        'items' => [
                            ['source' => $source, 'source_start_ticks' => 0, 'duration_ticks' => 705_600_000, 'record_start_ticks' => 0],
                        ],
                    ],
                ],
            ]),
        );
        self::assertStringContainsString(
            '001  A001     V     C        00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00',
            self::command(['json2edl', $file])[1],
        );
        self::assertSame(
            [0, ['files' => [$this->folder . '/out.edl']]],
            array_slice(self::command(['json2edl', $file, '-o', $this->folder . '/out.edl']), 0, 2),
        );
        $run = Process::run([__DIR__ . '/../../bin/cartella-core', 'json2otio', $file]);
        self::assertSame('Timeline.1', json_decode($run['output'], true)['OTIO_SCHEMA']);
    }

    public function test_it_runs_from_a_clean_checkout_without_a_vendor_folder(): void
    {
        mkdir($this->folder . '/core');
        Process::run(['cp', '-r', __DIR__ . '/../../src', __DIR__ . '/../../bin', $this->folder . '/core/']);
        $run = Process::run(['php', '-n', $this->folder . '/core/bin/cartella-core', 'slate', '12A-3']);
        self::assertSame(0, $run['status'], $run['error']);
        self::assertStringContainsString('"setup":"12A"', $run['output']);
    }
}
