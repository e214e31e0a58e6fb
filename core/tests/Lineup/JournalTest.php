<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\Journal;
use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\LineupResult;
use Cartella\Core\Lineup\Placement;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

/** A run that is killed goes on where it was. */
final class JournalTest extends TestCase
{
    private string $path;

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'journal');
    }

    protected function tearDown(): void
    {
        unlink($this->path);
    }

    /** @return list<LineupClip> a recording of forty seconds, three clips that ran with it and one that did not */
    private static function clips(): array
    {
        $stage = Noise::speech(40, 21);
        $clip = static fn(string $id, array $samples, bool $isSound = false): LineupClip => new LineupClip(
            $id,
            $id[0],
            $isSound,
            intdiv(count($samples) * Ticks::PER_SECOND, GuideTrack::SAMPLE_RATE),
            null,
            null,
            static fn(): GuideTrack => GuideTrack::ofBytes(pack('s*', ...$samples)),
        );

        return [
            $clip('S1', $stage, true),
            ...array_map(
                static fn(int $n): LineupClip => $clip(
                    "A$n",
                    Noise::heardFrom(array_slice($stage, 80_000 * $n + 4_001, 72_000), 0.1, 40, $n),
                ),
                [0, 1, 2],
            ),
            $clip('A3', Noise::speech(9, 99)),
        ];
    }

    private function lineUp(?callable $progress = null, string $about = 'day 1'): LineupResult
    {
        return Lineup::of(self::clips(), [Way::Sound], $progress, null, Journal::open($this->path, $about));
    }

    /** @return list<string> what was looked at, in the order in which it was written down */
    private function steps(): array
    {
        $lines = array_slice(file($this->path, FILE_IGNORE_NEW_LINES) ?: [], 1);

        return array_map(static fn(string $line): string => json_decode($line, true, 16, JSON_THROW_ON_ERROR)['step'], $lines);
    }

    public function test_a_run_that_was_killed_three_times_ends_like_another_and_looks_at_nothing_twice(): void
    {
        $plain = Lineup::of(self::clips(), [Way::Sound]);
        foreach ([1, 3, 4] as $after) {
            try {
                $this->lineUp(static function (string $id, int $done) use ($after): void {
                    $done < $after || throw new \RuntimeException('killed');
                });
                self::fail('It was not killed.');
            } catch (\RuntimeException) {
                self::assertCount($after, $this->steps());
            }
        }
        $result = $this->lineUp();
        self::assertSame(['landmarks A0', 'landmarks A1', 'landmarks A2', 'landmarks A3', 'fully A3'], $this->steps());
        $told = static fn(LineupResult $one): array => array_map(
            static fn(Placement $place): array => [$place->id, $place->startTicks, $place->sure, $place->confidence],
            $one->placements,
        );
        self::assertSame($told($plain), $told($result));
    }

    public function test_a_line_that_was_cut_off_while_it_was_written_is_looked_at_again(): void
    {
        $this->lineUp();
        $whole = (string) file_get_contents($this->path);
        file_put_contents($this->path, substr($whole, 0, -20));
        $this->lineUp();
        self::assertSame($whole, file_get_contents($this->path));
    }

    public function test_what_was_compared_for_other_clips_counts_for_nothing(): void
    {
        $this->lineUp();
        file_put_contents(
            $this->path,
            (string) preg_replace('/"height":[\d.]+/', '"height":99.0', (string) file_get_contents($this->path)),
        );
        $heights = static fn(LineupResult $result): array => array_map(
            static fn(Placement $place): float => $place->evidence['height'] ?? 0.0,
            $result->placements,
        );
        self::assertContains(99.0, $heights($this->lineUp()), 'the same clips');
        self::assertNotContains(99.0, $heights($this->lineUp(about: 'day 1, and a clip more')));
    }

    public function test_progress_never_runs_backwards(): void
    {
        $told = [];
        $this->lineUp(static function (string $id, int $done, int $total) use (&$told): void {
            $told[] = [$done, $total];
        });
        self::assertSame([[1, 4], [2, 4], [3, 4], [4, 4], [5, 5]], $told);
    }
}
