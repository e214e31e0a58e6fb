<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Cutting;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What may stand in a cut: nothing over anything else, nothing outside its source; and which place is to blame. */
final class SequenceTest extends TestCase
{
    private const SECOND = 705_600_000;

    /** @return array<string, mixed> ten seconds of a source of a minute */
    private static function item(int $record, int $from = 0, int $seconds = 10): array
    {
        return [
            'name' => 'A001C001',
            'source' => [
                'id' => 'a1',
                'name' => 'A001C001',
                'reel' => 'A001',
                'start_ticks' => 0,
                'duration_ticks' => 60 * self::SECOND,
                'rate' => '25',
            ],
            'source_start_ticks' => $from * self::SECOND,
            'duration_ticks' => $seconds * self::SECOND,
            'record_start_ticks' => $record * self::SECOND,
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $items
     * @return array<string, mixed>
     */
    private static function cut(array $items): array
    {
        return [
            'title' => 'Day 1',
            'rate' => '25',
            'start_ticks' => 3600 * self::SECOND,
            'tracks' => [['kind' => 'picture', 'name' => 'V', 'items' => $items]],
        ];
    }

    public function test_what_lies_between_two_items_is_a_gap_and_the_last_one_ends_the_cut(): void
    {
        $cut = Sequence::fromArray(self::cut([self::item(0), self::item(25)]));
        self::assertSame(35 * self::SECOND, $cut->durationTicks());
        self::assertSame(0, Sequence::fromArray(self::cut([]))->durationTicks());
    }

    public function test_items_may_touch_and_may_use_their_source_to_its_last_tick(): void
    {
        $cut = Sequence::fromArray(self::cut([self::item(0), self::item(10, from: 50)]));
        self::assertSame(
            [10 * self::SECOND, 20 * self::SECOND],
            array_map(static fn($item): int => $item->recordEndTicks(), $cut->tracks[0]->items),
        );
    }

    public function test_nothing_of_a_cut_is_lost_on_the_way_through_json(): void
    {
        $item =
            [
                'enabled' => false,
                'markers' => [['at_ticks' => self::SECOND, 'duration_ticks' => 0, 'name' => 'look', 'note' => 'the ledger']],
                'metadata' => ['scene' => '3A', 'asc_cdl' => ['saturation' => 0.8]],
            ] + self::item(4);
        $cut = Sequence::fromArray(['metadata' => ['production' => 'Low Water']] + self::cut([$item]));
        $again = Sequence::fromArray(json_decode((string) json_encode($cut->toArray()), true));
        self::assertEquals($cut, $again);
        self::assertFalse($again->tracks[0]->items[0]->enabled);
        self::assertSame('the ledger', $again->tracks[0]->items[0]->markers[0]->note);
    }

    /** @return array<string, array{mixed, string}> what is wrong, and the words that name the place */
    public static function broken(): array
    {
        $with = static fn(array $more): array => self::cut([$more + self::item(0)]);

        return [
            'no object at all' => ['a cut', 'sequence is not an object'],
            'no rate' => [array_diff_key(self::cut([]), ['rate' => 1]), 'sequence.rate is not text'],
            'a rate that is none' => [['rate' => '26.5'] + self::cut([]), 'rate is not a frame rate'],
            'a rate that is a number' => [['rate' => 25] + self::cut([]), 'sequence.rate is not text'],
            'tracks that are no list' => [['tracks' => 'V1'] + self::cut([]), 'sequence.tracks is not an object'],
            'a track of titles' => [
                ['tracks' => [['kind' => 'titles', 'items' => []]]] + self::cut([]),
                'sequence.tracks[0] is neither picture nor sound',
            ],
            'an item that is text' => [self::cut(['A001C001']), 'sequence.tracks[0].items[0] is not an object'],
            'an item without a source' => [self::cut([array_diff_key(self::item(0), ['source' => 1])]), 'items[0].source is not an object'],
            'a place in fractions of a tick' => [$with(['record_start_ticks' => 1.5]), 'items[0].record_start_ticks is not a whole number'],
            'a place beyond ten thousand days' => [
                $with(['record_start_ticks' => PHP_INT_MAX]),
                'items[0].record_start_ticks is not a whole number',
            ],
            'an item of no length' => [$with(['duration_ticks' => 0]), 'items[0] lasts no time'],
            'an item of less than no length' => [$with(['duration_ticks' => -self::SECOND]), 'items[0] lasts no time'],
            'an item before its source' => [$with(['source_start_ticks' => -1]), 'items[0] reads outside its source'],
            'an item beyond its source' => [$with(['source_start_ticks' => 50 * self::SECOND + 1]), 'items[0] reads outside its source'],
            'an item over the one before' => [self::cut([self::item(0), self::item(9)]), 'items[1] overlaps the item before it'],
            'items out of order' => [self::cut([self::item(20), self::item(0)]), 'items[1] overlaps the item before it'],
            'a source of an unknown rate' => [
                self::cut([['source' => ['rate' => 'fast'] + self::item(0)['source']] + self::item(0)]),
                'source has a rate that is not known',
            ],
            'a switch that is a word' => [$with(['enabled' => 'yes']), 'items[0].enabled is neither true nor false'],
            'a marker without a place' => [$with(['markers' => [['name' => 'look']]]), 'markers[0].at_ticks is not a whole number'],
        ];
    }

    #[DataProvider('broken')]
    public function test_a_cut_that_breaks_a_rule_is_refused_and_the_place_is_named(mixed $data, string $words): void
    {
        $this->expectException(InvalidSequence::class);
        $this->expectExceptionMessage($words);
        Sequence::fromArray($data);
    }
}
