<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\Exception\InvalidLineup;
use Cartella\Core\Lineup\LineupManifest;
use Cartella\Core\Lineup\LineupResult;
use Cartella\Core\Lineup\Placement;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The command's list of clips: real small files, and lists that nobody should send. */
final class LineupManifestTest extends TestCase
{
    use Folder;

    /** @param  list<int>  $samples */
    private function wav(string $name, array $samples): void
    {
        WavBuilder::pcm(0, 1, 16, 8000, pack('s*', ...$samples))->write("$this->folder/$name");
    }

    /**
     * @param  list<array<string, mixed>>  $clips
     * @param  list<string>  $ways
     */
    private function lineUp(array $clips, array $ways): LineupResult
    {
        return LineupManifest::run((string) json_encode(['clips' => $clips, 'ways' => $ways]), $this->folder);
    }

    private static function start(LineupResult $result, string $id): int
    {
        return array_values(array_filter($result->placements, static fn(Placement $place): bool => $place->id === $id))[0]->startTicks;
    }

    public function test_paths_are_taken_from_the_lists_own_folder_and_a_file_that_cannot_be_read_stops_nobody(): void
    {
        $stage = Noise::speech(24, 61);
        $this->wav('S1.wav', $stage);
        $this->wav('A 1 — täke.wav', array_slice($stage, 40_000, 96_000));
        file_put_contents("$this->folder/torn.wav", substr((string) file_get_contents("$this->folder/S1.wav"), 0, 30));
        $result = $this->lineUp(
            [
                ['id' => 'S1', 'device' => 'S', 'path' => 'S1.wav'],
                ['id' => 'A1', 'device' => 'A', 'path' => 'A 1 — täke.wav'],
                ['id' => 'B1', 'device' => 'B', 'path' => 'torn.wav'],
                ['id' => 'C1', 'device' => 'C', 'path' => 'not there.wav'],
            ],
            ['sound'],
        );
        self::assertSame('S1', $result->zero);
        self::assertEqualsWithDelta(5 * Ticks::PER_SECOND, self::start($result, 'A1'), Ticks::PER_SECOND / 500);
        self::assertSame(['B1', 'C1'], array_keys($result->strays));
    }

    public function test_marks_points_and_takes_of_the_list_are_ways_of_their_own(): void
    {
        $this->wav('hum.wav', Noise::hum(10, 3));
        $clip = static fn(string $id, array $more): array => ['id' => $id, 'device' => $id, 'path' => 'hum.wav', 'take' => '3/1'] + $more;
        $s = Ticks::PER_SECOND;
        $marked = $this->lineUp([$clip('S', ['marks' => ['smoke' => 4 * $s]]), $clip('A', ['marks' => ['smoke' => $s]])], ['mark']);
        self::assertSame(3 * $s, self::start($marked, 'A'));
        $in = $this->lineUp([$clip('S', ['in_ticks' => 2 * $s]), $clip('A', ['in_ticks' => 5 * $s])], ['in']);
        self::assertSame(-3 * $s, self::start($in, 'A'));
        $out = $this->lineUp([$clip('S', ['out_ticks' => 9 * $s]), $clip('A', ['out_ticks' => 8 * $s])], ['out']);
        self::assertSame($s, self::start($out, 'A'));
        self::assertSame(
            [0, Way::Start],
            [self::start($start = $this->lineUp([$clip('S', []), $clip('A', [])], ['start']), 'A'), $start->placements[1]->way],
        );
    }

    public function test_the_time_of_the_list_goes_before_that_of_the_file_and_a_date_without_a_time_is_no_clock(): void
    {
        $this->wav('hum.wav', Noise::hum(10, 3));
        $clip = static fn(string $id, array $more): array => ['id' => $id, 'device' => $id, 'path' => 'hum.wav'] + $more;
        $timed = $this->lineUp(
            [$clip('S', ['start_ticks' => 100 * Ticks::PER_SECOND]), $clip('A', ['start_ticks' => 103 * Ticks::PER_SECOND])],
            ['timecode'],
        );
        self::assertSame(3 * Ticks::PER_SECOND, self::start($timed, 'A'));
        $clocks = $this->lineUp(
            [
                $clip('S', ['created_at' => '2026-10-05T09:00:00Z']),
                $clip('A', ['created_at' => '2026-10-05T11:00:04+02:00']),
                $clip('B', ['created_at' => '2026-10-05']),
            ],
            ['clock'],
        );
        self::assertSame(4 * Ticks::PER_SECOND, self::start($clocks, 'A'));
        self::assertArrayHasKey('B', $clocks->strays);
    }

    /** @return array<string, array{string, string}> */
    public static function refused(): array
    {
        $list = static fn(array $more, array $ways = ['sound']): string => (string) json_encode([
            'clips' => [$more + ['id' => 'S', 'device' => 'S', 'path' => 'hum.wav']],
            'ways' => $ways,
        ]);

        return [
            'no JSON' => ['{"clips":', 'is not JSON with a list of clips'],
            'no list' => ['{"clips":"S1"}', 'is not JSON with a list of clips'],
            'no way' => [$list([], []), 'names no way'],
            'a way that is none' => [$list([], ['magic']), '"magic" is not a way'],
            'a way that is a number' => [$list([], [7]), 'is not a way'],
            'a clip without a name' => [$list(['id' => '']), 'Clip 0 has no id'],
            'a clip whose device is a number' => [$list(['device' => 3]), 'Clip 0 has no device'],
            'a clip twice' => [
                '{"clips":[{"id":"S","device":"S","path":"hum.wav"},{"id":"S","device":"A","path":"hum.wav"}],"ways":["sound"]}',
                'Clip S is there twice',
            ],
            'a time in words' => [$list(['start_ticks' => 'noon']), 'start_ticks that is not a whole number'],
            'a date that is none' => [$list(['created_at' => 'the day before yesterday, about ten']), 'created_at that is not a date'],
            'a mark in fractions' => [$list(['marks' => ['smoke' => 0.5]]), 'mark, in_ticks or out_ticks that is not a whole number'],
            'marks that are no list' => [$list(['marks' => 'smoke']), 'mark, in_ticks or out_ticks that is not a whole number'],
        ];
    }

    #[DataProvider('refused')]
    public function test_a_list_that_is_none_is_refused_with_the_clip_that_is_to_blame(string $json, string $words): void
    {
        $this->wav('hum.wav', Noise::hum(2, 3));
        $this->expectException(InvalidLineup::class);
        $this->expectExceptionMessage($words);
        LineupManifest::run($json, $this->folder);
    }
}
