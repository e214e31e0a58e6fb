<?php

declare(strict_types=1);

namespace Tests\App\Handoff;

use App\Domain\Handoff\PackedFiles;
use App\Models\Card;
use App\Models\Handoff;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Aaf\AafReader;
use Cartella\Core\Exchange\Edl\EdlReader;
use Cartella\Core\Exchange\Otio\OtioReader;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\App\Support\NumberedMedia;
use Tests\App\TestCase;

/** Lists against the media beside them: what a list names is in the files under that reel and timecode, frame for frame. */
final class DeliveredTest extends TestCase
{
    use NumberedMedia;

    public function test_every_event_of_a_delivered_list_is_that_frame_of_the_delivered_file(): void
    {
        foreach (
            [['A001', 'one', 36_000, 1, 37], ['A001', 'two', 36_100, 2, 5], ['A002', 'two', 40_000, 3, 60]]
            as [$roll, $name, $at, $take, $head]
        ) {
            $card = Card::query()->firstOrCreate(
                ['production_id' => $this->production->id, 'roll' => $roll],
                ['shoot_day_id' => $this->day->id, 'device_id' => $this->devices['A']->id, 'volume' => $roll, 'state' => 'done'],
            );
            $this->shot($name, 'A', $at, $take, [
                'card_id' => $card->id,
                'path' => "$roll/$name.mov",
                'path_hash' => md5($roll . $name),
            ])->update(['head_frames' => $head]);
        }
        $this->as()
            ->postJson($this->onDay('reels'), ['circled_only' => false, 'begin' => 'slate', 'name' => 'Of the day'])
            ->assertStatus(201);
        $choice = ['days' => [$this->day->ulid], 'bins' => []];
        $points = $this->postJson($this->at('handoffs/plan'), $choice)->json('points');
        $waived = array_map(static fn(array $one): array => ['day' => $one['day'], 'point' => $one['key'], 'reason' => 'known'], $points);
        $this->postJson($this->at('handoffs'), $choice + ['waived' => $waived])->assertStatus(202);
        $folder = "$this->folder/inbox/" . Handoff::query()->sole()->folder;
        $files = self::files("$folder/proxies");
        self::assertCount(3, $files);
        $lists = [
            'edl' => EdlReader::read((string) file_get_contents("$folder/cuts/Of the day.edl"), FrameRate::parse('25'))->sequence,
            'otio' => OtioReader::read((string) file_get_contents("$folder/cuts/Of the day.otio"))->sequence,
            'aaf' => AafReader::read((string) file_get_contents("$folder/cuts/Of the day.aaf"))->sequence,
        ];
        foreach ($lists as $format => $list) {
            self::assertSame([...range(37, 99), ...range(5, 99), ...range(60, 99)], self::shown($list, $files), $format);
        }
    }

    /** @return list<array{reel: string, from: int, numbers: list<int>}> files by what they say themselves */
    private static function files(string $folder): array
    {
        $files = [];
        foreach (glob("$folder/*.mp4") ?: [] as $file) {
            $run = Process::run(Ffmpeg::probe($file, ['-show_entries', 'stream_tags=timecode:format_tags=timecode,reel_name']), null, 60);
            $tags = json_decode($run['output'], true)['format']['tags'] ?? [];
            $files[] = [
                'reel' => (string) ($tags['reel_name'] ?? ''),
                'from' => Timecode::parse((string) ($tags['timecode'] ?? ''), FrameRate::parse('25')),
                'numbers' => self::numbers($file),
            ];
        }

        return $files;
    }

    /**
     * @param  list<array{reel: string, from: int, numbers: list<int>}>  $files
     * @return list<int> the number of each frame of the cut, looked up by reel and timecode
     */
    private static function shown(Sequence $list, array $files): array
    {
        $rate = $list->rate;
        $numbers = [];
        foreach ($list->tracks as $track) {
            foreach ($track->kind === TrackKind::Picture ? $track->items : [] as $item) {
                $from = Ticks::toFrames($item->source->startTicks + $item->sourceStartTicks, $rate);
                $count = Ticks::toFrames($item->durationTicks, $rate);
                $found = array_values(
                    array_filter(
                        $files,
                        static fn(array $file): bool => $file['reel'] === $item->source->reel &&
                            $file['from'] <= $from &&
                            $from + $count <= $file['from'] + count($file['numbers']),
                    ),
                );
                self::assertCount(1, $found, "{$item->source->reel} at $from");
                array_push($numbers, ...array_slice($found[0]['numbers'], $from - $found[0]['from'], $count));
            }
        }

        return $numbers;
    }

    public function test_a_package_that_is_killed_thirty_times_is_whole_in_the_end(): void
    {
        $random = new Randomizer(new Mt19937(17));
        $work = "$this->folder/work";
        mkdir($work);
        $sources = [];
        foreach (range(1, 12) as $number) {
            $sources["part/file $number"] = "$this->folder/source $number";
            file_put_contents("$this->folder/source $number", $random->getBytes($random->getInt(0, 3_000_000)));
        }
        $write = static function (?int $killedAt) use ($work, $sources): PackedFiles {
            $files = new PackedFiles($work, static function (int $bytes) use ($killedAt): void {
                if ($killedAt !== null && $bytes >= $killedAt) {
                    posix_kill(posix_getpid(), SIGKILL);
                }
            });
            foreach ($sources as $path => $source) {
                if (!$files->has($path, 'one')) {
                    $files->copy($source, $path, 'one');
                }
            }

            return $files;
        };
        for ($kills = 0; $kills < 30; $kills++) {
            $child = pcntl_fork();
            if ($child === 0) {
                $write($random->getInt(0, 1_500_000) + $kills * 1000);
                // Nothing of the test may end twice.
                posix_kill(posix_getpid(), SIGKILL);
            }
            pcntl_waitpid($child, $status);
            $random->getInt(0, 1);
        }
        $entries = $write(null)->settle(array_fill_keys(array_keys($sources), true));
        self::assertCount(12, $entries);
        foreach ($entries as $entry) {
            self::assertSame(hash_file('xxh128', $sources[$entry->path]), $entry->hash, $entry->path);
            self::assertFileEquals($sources[$entry->path], "$work/$entry->path");
        }
        self::assertSame(12, iterator_count(new \FilesystemIterator("$work/part")), 'halves of files are gone');
    }
}
