<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Placement;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** A production of hundreds of recordings: they are screened before anything is compared. */
final class ManyRecordingsTest extends TestCase
{
    private const RECORDINGS = 310;

    private const SECONDS = 12;

    /** Bursts of noise and pauses between them, 16 bits at 8 kHz. */
    private static function bursts(int $seed): string
    {
        $random = new Randomizer(new Xoshiro256StarStar($seed));
        $bytes = '';
        while (strlen($bytes) < 2 * GuideTrack::SAMPLE_RATE * self::SECONDS) {
            $length = 2 * $random->getInt(600, 2600);
            $bytes .= $random->getInt(0, 2) === 0 ? str_repeat("\0", $length) : $random->getBytes($length);
        }

        return substr($bytes, 0, 2 * GuideTrack::SAMPLE_RATE * self::SECONDS);
    }

    private static function heard(string $id, string $device, string $bytes): LineupClip
    {
        $track = GuideTrack::ofBytes($bytes);

        return new LineupClip(
            $id,
            $device,
            $device === 'S',
            intdiv($track->samples() * Ticks::PER_SECOND, GuideTrack::SAMPLE_RATE),
            sound: static fn(): GuideTrack => $track,
        );
    }

    public function test_cameras_find_the_one_recording_that_they_ran_with_and_a_stranger_finds_none(): void
    {
        $clips = [];
        for ($n = 0; $n < self::RECORDINGS; $n++) {
            $clips[] = self::heard("S$n", 'S', self::bursts(900 + $n));
        }
        $second = 2 * GuideTrack::SAMPLE_RATE;
        $right = self::bursts(900 + 217);
        $clips[] = self::heard('A', 'A', substr($right, $second, 9 * $second));
        $clips[] = self::heard('B', 'B', substr($right, 3 * $second, 8 * $second));
        $clips[] = self::heard('C', 'C', self::bursts(7));
        $result = Lineup::of($clips, [Way::Sound]);
        $places = array_column($result->placements, null, 'id');
        $at = static fn(string $id): Placement => $places[$id] ?? self::fail("$id has no place");
        foreach (['A' => 1, 'B' => 3] as $id => $seconds) {
            self::assertTrue($at($id)->sure, $id);
            self::assertSame($at('S217')->group, $at($id)->group, $id);
            self::assertEqualsWithDelta(
                $seconds * Ticks::PER_SECOND,
                $at($id)->startTicks - $at('S217')->startTicks,
                Ticks::PER_SECOND / 500,
                $id,
            );
        }
        self::assertFalse(($places['C'] ?? null)?->sure ?? false, 'what nobody recorded is nowhere surely');
    }
}
