<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup\Internal;

use Cartella\Core\Lineup\Internal\Landmarks;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Tests\Support\Noise;
use PHPUnit\Framework\TestCase;

final class LandmarksTest extends TestCase
{
    /** @param  list<int>  $samples */
    private static function add(Landmarks $landmarks, array $samples): int
    {
        return $landmarks->add(GuideTrack::ofBytes(pack('s*', ...$samples)));
    }

    public function test_the_clip_that_heard_the_same_has_the_most_votes_at_the_right_lag_and_others_hardly_any(): void
    {
        $stage = Noise::speech(40, 51);
        $landmarks = new Landmarks();
        $recording = self::add($landmarks, $stage);
        $elsewhere = self::add($landmarks, Noise::speech(40, 52));
        $camera = self::add($landmarks, Noise::heardFrom(array_slice($stage, 96_000, 120_000), 0.3, 200, 1));
        $like = $landmarks->like($camera, []);
        self::assertEqualsWithDelta(1200, $like[$recording][0]['lag'], 4, 'twelve seconds, in steps of 10 ms');
        self::assertGreaterThan(4 * ($like[$elsewhere][0]['votes'] ?? 0), $like[$recording][0]['votes']);
        self::assertEqualsWithDelta(-1200, $landmarks->like($recording, [])[$camera][0]['lag'], 4, 'and the other way round');
    }

    public function test_what_was_played_twice_has_two_places(): void
    {
        $song = Noise::speech(12, 53);
        $landmarks = new Landmarks();
        $recording = self::add($landmarks, [...$song, ...Noise::speech(8, 54), ...$song]);
        $camera = self::add($landmarks, $song);
        $lags = array_column($landmarks->like($camera, [])[$recording], 'lag');
        sort($lags);
        self::assertEqualsWithDelta([0, 2000], $lags, 4);
    }

    public function test_clips_that_are_not_asked_about_and_the_clip_itself_are_no_answer(): void
    {
        $stage = Noise::speech(20, 55);
        $landmarks = new Landmarks();
        $first = self::add($landmarks, $stage);
        $second = self::add($landmarks, array_slice($stage, 8_000));
        self::assertSame([$second], array_keys($landmarks->like($first, [])));
        self::assertSame([], $landmarks->like($first, [$second => true]));
        self::assertSame([], $landmarks->like(self::add($landmarks, array_fill(0, 20_000, 0)), []), 'silence is like nothing');
    }
}
