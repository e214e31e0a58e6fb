<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup\Internal;

use Cartella\Core\Lineup\Internal\DeviceClocks;
use Cartella\Core\Lineup\Internal\Link;
use Cartella\Core\Lineup\Internal\Network;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

final class NetworkTest extends TestCase
{
    private static function link(string $a, string $b, int $offset, float $ppm = 0.0, int $middle = 0): Link
    {
        return new Link($a, $b, $offset, Way::Sound, 0.9, true, $ppm, $middle);
    }

    private static function network(Link ...$links): Network
    {
        $network = new Network();
        foreach (['a', 'b', 'c', 'd', 'alone'] as $id) {
            $network->add($id);
        }
        foreach ($links as $link) {
            $network->tie($link);
        }

        return $network;
    }

    public function test_distances_add_up_along_any_chain_of_links(): void
    {
        $network = self::network(self::link('a', 'b', 10), self::link('d', 'c', -5));
        self::assertFalse($network->isTied('a', 'c'));
        self::assertTrue($network->tie(self::link('b', 'c', 7)));
        self::assertSame(
            ['a' => 0, 'b' => 10, 'c' => 17, 'd' => 22],
            array_map(static fn(array $place): int => $place['ticks'], $network->from('a')),
        );
        self::assertSame(
            ['d' => 0, 'c' => -5, 'b' => -12, 'a' => -22],
            array_map(static fn(array $place): int => $place['ticks'], $network->from('d')),
        );
        self::assertTrue($network->isAlone('alone'));
    }

    public function test_what_a_fast_clock_has_counted_is_made_shorter_on_the_way(): void
    {
        $hour = 3600 * Ticks::PER_SECOND;
        // b is 100 ppm fast, so c, an hour later on b's clock, began 360 ms earlier than an hour after b.
        $places = self::network(self::link('a', 'b', 0, 100.0), self::link('b', 'c', $hour, -100.0))->from('a');
        self::assertEqualsWithDelta($hour - 0.36 * Ticks::PER_SECOND, $places['c']['ticks'], 100);
        self::assertEqualsWithDelta(0.0, $places['c']['ppm'], 1e-9);
    }

    public function test_a_statement_about_what_is_tied_already_says_how_far_it_misses_where_it_was_measured(): void
    {
        $network = self::network(self::link('a', 'b', 10), self::link('b', 'c', 10));
        self::assertFalse($network->tie(self::link('a', 'c', 23)));
        $places = $network->from('a');
        self::assertSame(-3, Network::miss($network->closing[0], $places));
        self::assertSame(0, Network::miss(self::link('a', 'c', 20), $places));
        self::assertEqualsWithDelta(
            Ticks::PER_SECOND * 0.001,
            Network::miss(self::link('a', 'c', 20, 100.0, 10 * Ticks::PER_SECOND), $places),
            10,
            'ten seconds in, 100 ppm are a millisecond',
        );
        self::assertSame(['c'], array_keys(Network::way('b', 'c', $places)));
    }

    public function test_the_densest_bunch_of_votes_is_a_clocks_offset_and_one_vote_is_not_sure(): void
    {
        $clips = $times = $matches = [];
        foreach (['S' => 'S', 'A1' => 'A', 'A2' => 'A', 'A3' => 'A', 'B1' => 'B'] as $id => $device) {
            $clips[$id] = new LineupClip($id, $device, $device === 'S', 10);
            $times[$id] = 0;
        }
        $match = static fn(string $id, int $offset): SoundMatch => new SoundMatch('S', $id, $offset, 30.0, 3.0, 5, 5, null, 0.0, null);
        foreach (['A1' => 1000, 'A2' => 1004, 'A3' => 900_000_000, 'B1' => 50] as $id => $offset) {
            $matches[] = $match($id, $offset);
        }
        $offsets = (new DeviceClocks($clips, $matches, $times, intdiv(Ticks::PER_SECOND, 24), 'S'))->offsets;
        self::assertSame(['offset_ticks' => 1000, 'votes' => 2, 'sure' => true], $offsets['A']);
        self::assertSame(['offset_ticks' => 50, 'votes' => 1, 'sure' => false], $offsets['B']);
    }

    public function test_a_match_is_sure_only_when_it_is_high_leads_and_is_agreed_on(): void
    {
        $match = static fn(float $height, float $runnerUp, int $agreeing): SoundMatch => new SoundMatch(
            'a',
            'b',
            0,
            $height,
            $runnerUp,
            $agreeing,
            6,
            null,
            0.0,
            null,
        );
        self::assertTrue($match(12.0, 4.0, 4)->isSure());
        self::assertFalse($match(9.0, 4.0, 4)->isSure(), 'too low');
        self::assertFalse($match(12.0, 10.0, 4)->isSure(), 'another place is nearly as good');
        self::assertFalse($match(12.0, 4.0, 1)->isSure(), 'one window alone');
        self::assertFalse($match(6.0, 0.0, 1)->isUsable());
        self::assertGreaterThan($match(9.0, 4.0, 4)->confidence(), $match(20.0, 4.0, 6)->confidence());
        self::assertLessThanOrEqual(1.0, $match(500.0, 0.1, 6)->confidence());
    }
}
