<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup\Internal;

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Placement;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\Noise;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

/** Very many clips without a place: the recordings are screened, and a second process does every other clip. */
final class SecondProcessTest extends TestCase
{
    use Folder;

    public function test_what_two_processes_find_is_what_one_finds(): void
    {
        $clip = function (string $id, array $samples, bool $isFile): LineupClip {
            $bytes = pack('s*', ...$samples);
            $path = $this->file($id, $bytes);

            return new LineupClip(
                $id,
                $id[0],
                $id[0] === 'S',
                intdiv(count($samples) * Ticks::PER_SECOND, GuideTrack::SAMPLE_RATE),
                sound: static fn(): GuideTrack => $isFile ? GuideTrack::ofFile($path) : GuideTrack::ofBytes($bytes),
            );
        };
        $samples = [];
        foreach (range(0, 25) as $n) {
            $samples["S$n"] = Noise::speech(9, 300 + $n);
        }
        // So short and so noisy that landmarks say nothing of them; and clips that ran with no recording at all.
        foreach (range(0, 19) as $n) {
            $samples["A$n"] = Noise::heardFrom(array_slice($samples["S$n"], 16_000, 24_000), 0.1, 160, $n);
            $samples["B$n"] = Noise::speech(3, 900 + $n);
        }
        $samples['B20'] = Noise::speech(3, 950);
        $placed = static function (bool $isFile) use ($samples, $clip): array {
            $told = [];
            $result = Lineup::of(
                array_map(static fn(string $id): LineupClip => $clip($id, $samples[$id], $isFile), array_keys($samples)),
                [Way::Sound],
                static function (string $id, int $done, int $total) use (&$told): void {
                    $told = [$done, $total];
                },
            );
            self::assertSame($told[0], $told[1], 'progress came to its end');

            return array_map(
                static fn(Placement $place): array => [$place->id, $place->startTicks, $place->sure, $place->evidence['against'] ?? null],
                $result->placements,
            );
        };
        $one = $placed(false);
        self::assertSame($one, $placed(true));
        $isRight = static fn(array $place): bool => $place[0][0] === 'A' && $place[3] === 'S' . substr($place[0], 1);
        self::assertGreaterThan(10, count(array_filter($one, $isRight)));
        $isMadeUp = static fn(array $place): bool => $place[0][0] === 'B' && $place[2];
        self::assertSame([], array_filter($one, $isMadeUp), 'nothing is sure that was heard nowhere');
    }
}
