<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup\Internal;

use Cartella\Core\Lineup\Internal\DeviceClocks;
use Cartella\Core\Lineup\Internal\Graph;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\TestCase;

final class GraphTest extends TestCase
{
    public function test_distances_add_up_along_any_chain_of_ties(): void
    {
        $graph = new Graph();
        foreach (['a', 'b', 'c', 'd', 'alone'] as $id) {
            $graph->add($id);
        }
        $graph->tie('a', 'b', 10);
        $graph->tie('d', 'c', -5);
        self::assertFalse($graph->isTied('a', 'c'));
        $graph->tie('b', 'c', 7);
        $from = static fn (string $x, string $y): int => $graph->find($y)[1] - $graph->find($x)[1];
        self::assertSame([10, 17, 22, -22], [$from('a', 'b'), $from('a', 'c'), $from('a', 'd'), $from('d', 'a')]);
        self::assertFalse($graph->isTied('a', 'alone'));
    }

    public function test_a_statement_about_what_is_tied_already_says_how_far_it_misses(): void
    {
        $graph = new Graph();
        foreach (['a', 'b', 'c'] as $id) {
            $graph->add($id);
        }
        self::assertNull($graph->tie('a', 'b', 10));
        self::assertNull($graph->tie('b', 'c', 10));
        self::assertSame(0, $graph->tie('a', 'c', 20));
        self::assertSame(-3, $graph->tie('a', 'c', 23));
        self::assertSame(20, $graph->find('c')[1] - $graph->find('a')[1], 'the first statement stands');
    }

    public function test_the_densest_bunch_of_votes_is_a_clocks_offset_and_one_vote_is_not_sure(): void
    {
        $clips = $times = $matches = [];
        foreach (['S' => 'S', 'A1' => 'A', 'A2' => 'A', 'A3' => 'A', 'B1' => 'B'] as $id => $device) {
            $clips[$id] = new LineupClip($id, $device, $device === 'S', 10);
            $times[$id] = 0;
        }
        $match = static fn (string $id, int $offset): SoundMatch => new SoundMatch('S', $id, $offset, 30.0, 3.0, 5, 5, null, 0.0, null);
        foreach (['A1' => 1000, 'A2' => 1004, 'A3' => 900_000_000, 'B1' => 50] as $id => $offset) {
            $matches[] = $match($id, $offset);
        }
        $offsets = (new DeviceClocks($clips, $matches, $times, intdiv(Ticks::PER_SECOND, 24), 'S'))->offsets;
        self::assertSame(['offset_ticks' => 1000, 'votes' => 2, 'sure' => true], $offsets['A']);
        self::assertSame(['offset_ticks' => 50, 'votes' => 1, 'sure' => false], $offsets['B']);
    }

    public function test_a_match_is_sure_only_when_it_is_high_leads_and_is_agreed_on(): void
    {
        $match = static fn (float $height, float $runnerUp, int $agreeing): SoundMatch => new SoundMatch('a', 'b', 0, $height, $runnerUp, $agreeing, 6, null, 0.0, null);
        self::assertTrue($match(12.0, 4.0, 4)->isSure());
        self::assertFalse($match(9.0, 4.0, 4)->isSure(), 'too low');
        self::assertFalse($match(12.0, 10.0, 4)->isSure(), 'another place is nearly as good');
        self::assertFalse($match(12.0, 4.0, 1)->isSure(), 'one window alone');
        self::assertFalse($match(6.0, 0.0, 1)->isUsable());
        self::assertGreaterThan($match(9.0, 4.0, 4)->confidence(), $match(20.0, 4.0, 6)->confidence());
        self::assertLessThanOrEqual(1.0, $match(500.0, 0.1, 6)->confidence());
    }
}
