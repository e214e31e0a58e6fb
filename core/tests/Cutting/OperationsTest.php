<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Cutting;

use Cartella\Core\Cutting\Edit\InvalidOperation;
use Cartella\Core\Cutting\Edit\Operations;
use Cartella\Core\Cutting\Edit\Refused;
use Cartella\Core\Cutting\Edit\Restore;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Packed;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Each operation of a cut: what it does, what it refuses, and that it can be undone to the last byte. Letters are sources. */
final class OperationsTest extends TestCase
{
    private const FRAME = 28_224_000;

    /** @return array<string, mixed> a source of 100 frames, `length` of them from `from` */
    private static function item(string $name, int $length, int $from = 20, int $record = 0): array
    {
        return [
            'name' => $name,
            'source' => ['id' => $name, 'name' => $name, 'start_ticks' => 0, 'duration_ticks' => 100 * self::FRAME, 'rate' => '25'],
            'source_start_ticks' => $from * self::FRAME,
            'duration_ticks' => $length * self::FRAME,
            'record_start_ticks' => $record * self::FRAME,
        ];
    }

    /**
     * Picture A 0–10, B 10–20, gap, C 30–40; sound S 0–40; a locked track with L 5–25.
     *
     * @param  list<array<string, mixed>>  $markers  of A
     */
    private static function cut(array $markers = []): Sequence
    {
        $a = ['markers' => $markers] + self::item('A', 10);

        return Sequence::fromArray([
            'title' => 'x',
            'rate' => '25',
            'start_ticks' => 0,
            'tracks' => [
                ['kind' => 'picture', 'name' => 'V', 'items' => [$a, self::item('B', 10, 20, 10), self::item('C', 10, 20, 30)]],
                ['kind' => 'sound', 'name' => 'A', 'items' => [self::item('S', 40)]],
                ['kind' => 'sound', 'name' => 'L', 'locked' => true, 'items' => [self::item('L', 20, 20, 5)]],
            ],
        ]);
    }

    /** `A 0-10 @20`: name, place and first frame of the source, in frames. */
    private static function told(Sequence $sequence, int $track = 0): string
    {
        return implode(
            ', ',
            array_map(
                static fn(Item $item): string => sprintf(
                    '%s %d-%d @%d',
                    $item->name . ($item->enabled ? '' : '!'),
                    $item->recordStartTicks / self::FRAME,
                    $item->recordEndTicks() / self::FRAME,
                    $item->sourceStartTicks / self::FRAME,
                ),
                $sequence->tracks[$track]->items,
            ),
        );
    }

    /**
     * Amounts of an operation in frames, as it is easier to read.
     *
     * @param  array<string, mixed>  $op
     * @return array<string, mixed>
     */
    private static function ticks(array $op): array
    {
        foreach ($op as $field => $value) {
            if (str_ends_with($field, '_ticks')) {
                $op[$field] = (int) round($value * self::FRAME);
            }
        }

        return $op;
    }

    /** Pictures A 0–10, B 10–30, C 30–40 and under each its sound a, b, c; a locked track with L 5–25. */
    private static function pairs(): Sequence
    {
        $own = static fn(string ...$names): array => [
            self::item($names[0], 10),
            self::item($names[1], 20, 20, 10),
            self::item($names[2], 10, 20, 30),
        ];

        return Sequence::fromArray([
            'title' => 'x',
            'rate' => '25',
            'start_ticks' => 0,
            'tracks' => [
                ['kind' => 'picture', 'name' => 'V', 'items' => $own('A', 'B', 'C')],
                ['kind' => 'sound', 'name' => 'A', 'items' => $own('a', 'b', 'c')],
                ['kind' => 'sound', 'name' => 'L', 'locked' => true, 'items' => [self::item('L', 20, 20, 5)]],
            ],
        ]);
    }

    /** @return iterable<string, array{string, int, bool, string}> edge, frames, ripple, and both tracks as they are then */
    public static function edgesOfPairs(): iterable
    {
        yield 'a tail earlier' => ['tail', -5, true, 'A 0-10 @20, B 10-25 @20, C 25-35 @20'];
        yield 'a tail later' => ['tail', 5, true, 'A 0-10 @20, B 10-35 @20, C 35-45 @20'];
        yield 'a head later' => ['head', 5, true, 'A 0-10 @20, B 10-25 @25, C 25-35 @20'];
        yield 'a head earlier' => ['head', -5, true, 'A 0-10 @20, B 10-35 @15, C 35-45 @20'];
        yield 'a tail, and nothing follows' => ['tail', -5, false, 'A 0-10 @20, B 10-25 @20, C 30-40 @20'];
        yield 'a head, and nothing follows' => ['head', 5, false, 'A 0-10 @20, B 15-30 @25, C 30-40 @20'];
    }

    #[DataProvider('edgesOfPairs')]
    public function test_what_goes_along_is_trimmed_as_one_and_what_is_behind_moves_once(
        string $edge,
        int $frames,
        bool $ripple,
        string $wanted,
    ): void {
        $before = self::pairs();
        $done = Operations::run($before, [
            [
                ...['op' => 'trim', 'track' => 0, 'index' => 1, 'edge' => $edge, 'by_ticks' => $frames * self::FRAME, 'ripple' => $ripple],
                'with' => [['track' => 1, 'index' => 1]],
            ],
        ]);
        self::assertSame([], $done['refused']);
        self::assertSame([$wanted, strtolower($wanted)], [self::told($done['sequence']), self::told($done['sequence'], 1)]);
        self::assertSame('L 5-25 @20', self::told($done['sequence'], 2));
        self::assertEquals($before, $done['inverse'][0]->apply($done['sequence']));
    }

    public function test_what_has_no_such_edge_goes_along_with_nothing(): void
    {
        foreach ([['track' => 1, 'index' => 0], ['track' => 0, 'index' => 0], ['track' => 2, 'index' => 0]] as $other) {
            $done = Operations::run(self::pairs(), [
                ['op' => 'trim', 'track' => 0, 'index' => 1, 'edge' => 'tail', 'by_ticks' => -self::FRAME, 'with' => [$other]],
            ]);
            self::assertCount(1, $done['refused']);
            self::assertEquals(self::pairs(), $done['sequence']);
        }
    }

    public function test_a_gap_closes_everywhere_as_far_as_nothing_plays_in_it(): void
    {
        $cut = static fn(array $sound): Sequence => Sequence::fromArray([
            'title' => 'x',
            'rate' => '25',
            'start_ticks' => 0,
            'tracks' => [
                ['kind' => 'picture', 'name' => 'V', 'items' => [self::item('A', 10), self::item('B', 10, 20, 40)]],
                ['kind' => 'sound', 'name' => 'A', 'items' => $sound],
            ],
        ]);
        $closed = static fn(array $sound): array => Operations::run($cut($sound), [
            ['op' => 'close_gap', 'track' => 0, 'at_ticks' => 20 * self::FRAME, 'everywhere' => true],
        ]);
        $told = static fn(array $sound): array => [self::told($closed($sound)['sequence']), self::told($closed($sound)['sequence'], 1)];
        self::assertSame(['A 0-10 @20, B 10-20 @20', 'S 10-20 @20'], $told([self::item('S', 10, 20, 40)]));
        self::assertSame(['A 0-10 @20, B 15-25 @20', 'S 0-15 @20'], $told([self::item('S', 15)]));
        self::assertSame(['A 0-10 @20, B 20-30 @20', 'S 10-30 @20'], $told([self::item('S', 20, 20, 30)]));
        self::assertSame('Something plays in that gap on another track.', $closed([self::item('S', 60)])['refused'][0]['reason']);
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> operation, picture and sound afterwards */
    public static function done(): iterable
    {
        $same = 'A 0-10 @20, B 10-20 @20, C 30-40 @20';
        $sound = 'S 0-40 @20';
        yield 'append' => [['op' => 'append', 'track' => 0, 'item' => self::item('D', 5)], "$same, D 40-45 @20", $sound];
        yield 'insert in the middle of an item opens every unlocked track' => [
            ['op' => 'insert', 'at_ticks' => 5, 'items' => [['track' => 0, 'item' => self::item('D', 4)]]],
            'A 0-5 @20, D 5-9 @20, A 9-14 @25, B 14-24 @20, C 34-44 @20',
            'S 0-5 @20, S 9-44 @25',
        ];
        yield 'insert on a cut, as long as the longest' => [
            [
                'op' => 'insert',
                'at_ticks' => 10,
                'items' => [['track' => 0, 'item' => self::item('D', 4)], ['track' => 1, 'item' => self::item('T', 6)]],
            ],
            'A 0-10 @20, D 10-14 @20, B 16-26 @20, C 36-46 @20',
            'S 0-10 @20, T 10-16 @20, S 16-46 @30',
        ];
        yield 'lay over' => [
            ['op' => 'lay_over', 'track' => 0, 'at_ticks' => 8, 'item' => self::item('D', 6)],
            'A 0-8 @20, D 8-14 @20, B 14-20 @24, C 30-40 @20',
            $sound,
        ];
        yield 'lift leaves a gap' => [
            ['op' => 'lift', 'track' => 0, 'from_ticks' => 5, 'to_ticks' => 15],
            'A 0-5 @20, B 15-20 @25, C 30-40 @20',
            $sound,
        ];
        yield 'extract closes up' => [
            ['op' => 'extract', 'from_ticks' => 5, 'to_ticks' => 15],
            'A 0-5 @20, B 5-10 @25, C 20-30 @20',
            'S 0-5 @20, S 5-30 @35',
        ];
        yield 'split' => [['op' => 'split', 'track' => 0, 'at_ticks' => 13], 'A 0-10 @20, B 10-13 @20, B 13-20 @23, C 30-40 @20', $sound];
        yield 'trim a head' => [
            ['op' => 'trim', 'track' => 0, 'index' => 1, 'edge' => 'head', 'by_ticks' => 3, 'ripple' => false],
            'A 0-10 @20, B 13-20 @23, C 30-40 @20',
            $sound,
        ];
        yield 'trim a tail later' => [
            ['op' => 'trim', 'track' => 0, 'index' => 1, 'edge' => 'tail', 'by_ticks' => 10, 'ripple' => false],
            'A 0-10 @20, B 10-30 @20, C 30-40 @20',
            $sound,
        ];
        yield 'ripple a tail where nothing spans it' => [
            ['op' => 'trim', 'track' => 0, 'index' => 2, 'edge' => 'tail', 'by_ticks' => 5, 'ripple' => true],
            'A 0-10 @20, B 10-20 @20, C 30-45 @20',
            $sound,
        ];
        yield 'ripple a head: it keeps its start' => [
            ['op' => 'trim', 'track' => 0, 'index' => 2, 'edge' => 'head', 'by_ticks' => 4, 'ripple' => true],
            'A 0-10 @20, B 10-20 @20, C 30-36 @24',
            $sound,
        ];
        yield 'roll' => [['op' => 'roll', 'track' => 0, 'index' => 0, 'by_ticks' => -4], 'A 0-6 @20, B 6-20 @16, C 30-40 @20', $sound];
        yield 'slip' => [['op' => 'slip', 'track' => 0, 'index' => 1, 'by_ticks' => 7], 'A 0-10 @20, B 10-20 @27, C 30-40 @20', $sound];
        yield 'move into the gap' => [
            ['op' => 'move', 'track' => 0, 'index' => 0, 'to_track' => 0, 'at_ticks' => 20],
            'B 10-20 @20, A 20-30 @20, C 30-40 @20',
            $sound,
        ];
        yield 'close a gap' => [['op' => 'close_gap', 'track' => 0, 'at_ticks' => 25], 'A 0-10 @20, B 10-20 @20, C 20-30 @20', $sound];
        yield 'off' => [['op' => 'enable', 'track' => 0, 'index' => 1, 'on' => false], 'A 0-10 @20, B! 10-20 @20, C 30-40 @20', $sound];
        yield 'replace' => [
            ['op' => 'replace', 'track' => 0, 'index' => 1, 'source' => self::item('Z', 1)['source'], 'source_start_ticks' => 50],
            'A 0-10 @20, B 10-20 @50, C 30-40 @20',
            $sound,
        ];
    }

    /** @param  array<string, mixed>  $op */
    #[DataProvider('done')]
    public function test_an_operation_does_what_it_says_and_is_undone_to_the_last_byte(array $op, string $picture, string $sound): void
    {
        $before = self::cut();
        $done = Operations::run($before, [self::ticks($op)]);
        self::assertSame([[], $picture, $sound], [$done['refused'], self::told($done['sequence']), self::told($done['sequence'], 1)]);
        self::assertSame('L 5-25 @20', self::told($done['sequence'], 2), 'a locked track stays');
        $inverse = json_decode((string) json_encode(array_map(static fn($one): array => $one->toArray(), $done['inverse'])), true);
        $again = Operations::run(Sequence::fromArray(json_decode((string) json_encode($done['sequence']->toArray()), true)), $inverse);
        self::assertSame(json_encode($before->toArray()), json_encode($again['sequence']->toArray()));
    }

    /** @return iterable<string, array{array<string, mixed>, string}> operation, and words of the reason */
    public static function refused(): iterable
    {
        yield 'a locked track' => [['op' => 'lift', 'track' => 2, 'from_ticks' => 0, 'to_ticks' => 5], 'locked'];
        yield 'no such track' => [['op' => 'split', 'track' => 9, 'at_ticks' => 5], 'no track 9'];
        yield 'no such item' => [['op' => 'slip', 'track' => 0, 'index' => 9, 'by_ticks' => 1], 'no item 9'];
        yield 'between two frames' => [['op' => 'split', 'track' => 0, 'at_ticks' => 5.5], 'between two frames'];
        yield 'before the sequence' => [['op' => 'lay_over', 'track' => 0, 'at_ticks' => -1, 'item' => self::item('D', 5)], 'before'];
        yield 'a range of nothing' => [['op' => 'extract', 'from_ticks' => 5, 'to_ticks' => 5], 'no time'];
        yield 'a split on a cut' => [['op' => 'split', 'track' => 0, 'at_ticks' => 10], 'No item plays across'];
        yield 'a join of two sources' => [['op' => 'join', 'track' => 0, 'index' => 0], 'does not play on'];
        yield 'a trim to nothing' => [
            ['op' => 'trim', 'track' => 0, 'index' => 0, 'edge' => 'tail', 'by_ticks' => -10, 'ripple' => false],
            'Nothing would be left',
        ];
        yield 'a trim over the next' => [
            ['op' => 'trim', 'track' => 0, 'index' => 0, 'edge' => 'tail', 'by_ticks' => 1, 'ripple' => false],
            'Another item',
        ];
        yield 'a trim beyond the source' => [
            ['op' => 'trim', 'track' => 0, 'index' => 2, 'edge' => 'tail', 'by_ticks' => 71, 'ripple' => false],
            'no more there',
        ];
        yield 'a ripple under which something plays' => [
            ['op' => 'trim', 'track' => 0, 'index' => 0, 'edge' => 'tail', 'by_ticks' => 2, 'ripple' => true],
            'plays across',
        ];
        yield 'a roll over a gap' => [['op' => 'roll', 'track' => 0, 'index' => 1, 'by_ticks' => 1], 'a gap'];
        yield 'a slip beyond the source' => [['op' => 'slip', 'track' => 0, 'index' => 0, 'by_ticks' => 71], 'no more there'];
        yield 'a move onto something' => [['op' => 'move', 'track' => 0, 'index' => 0, 'to_track' => 0, 'at_ticks' => 15], 'Another item'];
        yield 'picture among sound' => [['op' => 'move', 'track' => 0, 'index' => 0, 'to_track' => 1, 'at_ticks' => 50], 'own kind'];
        yield 'no gap' => [['op' => 'close_gap', 'track' => 0, 'at_ticks' => 5], 'no gap'];
        yield 'two at one place' => [
            [
                'op' => 'insert',
                'at_ticks' => 0,
                'items' => [['track' => 0, 'item' => self::item('D', 4)], ['track' => 0, 'item' => self::item('E', 4)]],
            ],
            'Two items',
        ];
        yield 'an item beyond its source' => [['op' => 'append', 'track' => 0, 'item' => self::item('D', 50, 60)], 'outside its source'];
    }

    /** @param  array<string, mixed>  $op */
    #[DataProvider('refused')]
    public function test_what_would_break_a_rule_is_refused_and_the_next_one_goes_on(array $op, string $why): void
    {
        $done = Operations::run(self::cut(), [
            self::ticks($op),
            self::ticks(['op' => 'slip', 'track' => 0, 'index' => 1, 'by_ticks' => 1]),
        ]);
        self::assertSame([0], array_column($done['refused'], 'index'));
        self::assertStringContainsString($why, $done['refused'][0]['reason']);
        self::assertSame('A 0-10 @20, B 10-20 @21, C 30-40 @20', self::told($done['sequence']));
    }

    /**
     * Picture A 0–20 of a line-up in which B began 15 frames later and C never rolled with it; the sound under it has angles, too.
     */
    private static function event(): Sequence
    {
        $source = static fn(string $name): array => self::item($name, 1)['source'];
        $angles = [
            'lineup' => 'day 1',
            'current' => 'A',
            'list' => [
                ['angle' => 'A', 'source' => $source('A'), 'start_ticks' => 0],
                ['angle' => 'B', 'source' => $source('B'), 'start_ticks' => 15 * self::FRAME],
                ['angle' => 'C', 'source' => $source('C'), 'start_ticks' => 500 * self::FRAME],
            ],
        ];

        return Sequence::fromArray([
            'title' => 'x',
            'rate' => '25',
            'tracks' => [
                ['kind' => 'picture', 'name' => 'V', 'items' => [['angles' => $angles] + self::item('A', 20)]],
                ['kind' => 'sound', 'name' => 'A', 'items' => [['angles' => $angles] + self::item('A', 20)]],
            ],
        ]);
    }

    public function test_another_angle_shows_the_same_moment_in_the_picture_and_the_sound_stays(): void
    {
        $op = ['op' => 'angle', 'from_ticks' => 5, 'to_ticks' => 12, 'takes' => 'picture', 'angle' => 'B'];
        $done = Operations::run(self::event(), [self::ticks($op)]);
        $shown = static fn(int $track): array => array_map(
            static fn(Item $item): array => [
                $item->source->id,
                $item->recordStartTicks / self::FRAME,
                $item->sourceStartTicks / self::FRAME,
            ],
            $done['sequence']->tracks[$track]->items,
        );
        // Frame 25 of A is the moment at which B shows its frame 10.
        self::assertSame([['A', 0, 20], ['B', 5, 10], ['A', 12, 32]], $shown(0));
        self::assertSame([['A', 0, 20]], $shown(1));
        $packed = Packed::read(Packed::write($done['sequence']));
        $inverse = json_decode((string) json_encode(array_map(static fn($one): array => $one->toArray(), $done['inverse'])), true);
        $back = Operations::run($packed, $inverse);
        self::assertSame(json_encode(self::event()->toArray()), json_encode($back['sequence']->toArray()));
        $both = Operations::run(self::event(), [self::ticks(['takes' => 'both'] + $op)])['sequence'];
        self::assertCount(3, $both->tracks[1]->items);
    }

    public function test_an_angle_that_was_not_rolling_is_refused_and_one_that_is_none_shows_nothing(): void
    {
        $op = ['op' => 'angle', 'from_ticks' => 5, 'to_ticks' => 12, 'takes' => 'both', 'angle' => 'C'];
        foreach (
            ['C' => 'C was not rolling there.', 'D' => 'Nothing there has another angle', 'A' => 'Nothing there has']
            as $angle => $why
        ) {
            $done = Operations::run(self::event(), [self::ticks(['angle' => $angle] + $op)]);
            self::assertStringContainsString($why, $done['refused'][0]['reason']);
            self::assertSame(json_encode(self::event()->toArray()), json_encode($done['sequence']->toArray()));
        }
        $replaced = Operations::run(self::event(), [
            ['op' => 'replace', 'track' => 0, 'index' => 0, 'source' => self::item('Z', 1)['source'], 'source_start_ticks' => 0],
        ]);
        self::assertNull($replaced['sequence']->tracks[0]->items[0]->angles, 'another source is a plain item');
    }

    public function test_a_split_can_be_joined_again_with_its_marks_where_they_were(): void
    {
        $markers = [
            ['at_ticks' => 2 * self::FRAME, 'duration_ticks' => 0, 'name' => 'look', 'note' => ''],
            ['at_ticks' => 7 * self::FRAME, 'duration_ticks' => 0, 'name' => 'clap', 'note' => ''],
        ];
        $before = self::cut($markers);
        $split = Operations::run($before, [self::ticks(['op' => 'split', 'track' => 0, 'at_ticks' => 5])])['sequence'];
        self::assertSame(
            [2, 2],
            [
                $split->tracks[0]->items[0]->markers[0]->atTicks / self::FRAME,
                $split->tracks[0]->items[1]->markers[0]->atTicks / self::FRAME,
            ],
        );
        $joined = Operations::run($split, [['op' => 'join', 'track' => 0, 'index' => 0]])['sequence'];
        self::assertSame(json_encode($before->toArray()), json_encode($joined->toArray()));
    }

    /** @return iterable<string, array{mixed}> */
    public static function none(): iterable
    {
        yield 'an unknown name' => [['op' => 'explode', 'track' => 0]];
        yield 'no name' => [['track' => 0]];
        yield 'text' => ['split'];
        yield 'a place that is text' => [['op' => 'split', 'track' => 0, 'at_ticks' => 'here']];
        yield 'an edge that is none' => [['op' => 'trim', 'track' => 0, 'index' => 0, 'edge' => 'middle', 'by_ticks' => 1]];
        yield 'an item without a source' => [['op' => 'append', 'track' => 0, 'item' => ['name' => 'D']]];
        yield 'an angle of nothing' => [
            ['op' => 'angle', 'from_ticks' => 0, 'to_ticks' => self::FRAME, 'takes' => 'light', 'angle' => 'A'],
        ];
        yield 'neither on nor off' => [['op' => 'enable', 'track' => 0, 'index' => 0]];
    }

    #[DataProvider('none')]
    public function test_what_is_no_operation_is_bad_use(mixed $op): void
    {
        $this->expectException(InvalidOperation::class);
        Operations::run(self::cut(), [$op]);
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach ([3, 1941, 90_210] as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    /** 500 operations by chance: every cut on the way holds the rules, and the inverses lead back to the first bytes. */
    #[DataProvider('seeds')]
    public function test_any_operations_leave_a_cut_that_holds_and_lead_back_to_the_first_bytes(int $seed): void
    {
        $random = new Randomizer(new Mt19937($seed));
        $first = $sequence = self::cut();
        $back = [];
        $taken = 0;
        for ($n = 0; $n < 500; $n++) {
            $done = Operations::run($sequence, [self::chance($random, $sequence)]);
            $taken += (int) ($done['refused'] === []);
            $sequence = Sequence::fromArray(json_decode((string) json_encode($done['sequence']->toArray()), true));
            foreach ($sequence->tracks as $track) {
                self::assertHolds($track);
            }
            array_unshift($back, ...array_map(static fn($one): array => $one->toArray(), $done['inverse']));
        }
        self::assertGreaterThan(150, $taken, 'enough of them were possible');
        $again = Operations::run($sequence, json_decode((string) json_encode($back), true));
        self::assertSame([[], json_encode($first->toArray())], [$again['refused'], json_encode($again['sequence']->toArray())]);
    }

    private static function assertHolds(Track $track): void
    {
        $end = 0;
        foreach ($track->items as $item) {
            self::assertGreaterThanOrEqual($end, $item->recordStartTicks);
            self::assertGreaterThan(0, $item->durationTicks);
            self::assertGreaterThanOrEqual(0, $item->sourceStartTicks);
            self::assertLessThanOrEqual($item->source->durationTicks, $item->sourceEndTicks());
            self::assertSame([0, 0], [$item->recordStartTicks % self::FRAME, $item->durationTicks % self::FRAME]);
            $end = $item->recordEndTicks();
        }
    }

    /** @return array<string, mixed> */
    private static function chance(Randomizer $random, Sequence $sequence): array
    {
        $track = $random->getInt(0, 2);
        $last = max(0, count($sequence->tracks[$track]->items) - 1);
        $index = $random->getInt(0, $last);
        $at = $random->getInt(0, 60);
        $by = $random->getInt(-6, 6);
        $length = $random->getInt(1, 12);
        $item = self::item(chr(65 + $random->getInt(0, 25)), $length, $random->getInt(0, 40));
        $op = [
            ['op' => 'append', 'track' => $track, 'item' => $item],
            ['op' => 'insert', 'at_ticks' => $at, 'items' => [['track' => $random->getInt(0, 1), 'item' => $item]]],
            ['op' => 'lay_over', 'track' => $track, 'at_ticks' => $at, 'item' => $item],
            ['op' => 'lift', 'track' => $track, 'from_ticks' => $at, 'to_ticks' => $at + $length],
            ['op' => 'extract', 'from_ticks' => $at, 'to_ticks' => $at + $length],
            ['op' => 'split', 'track' => $track, 'at_ticks' => $at],
            ['op' => 'join', 'track' => $track, 'index' => $index],
            ['op' => 'trim', 'track' => $track, 'index' => $index, 'edge' => 'head', 'by_ticks' => $by, 'ripple' => $at > 30],
            ['op' => 'trim', 'track' => $track, 'index' => $index, 'edge' => 'tail', 'by_ticks' => $by, 'ripple' => $at > 30],
            [
                ...['op' => 'trim', 'track' => 0, 'index' => $index, 'edge' => 'tail', 'by_ticks' => $by, 'ripple' => $at > 30],
                'with' => [['track' => 1, 'index' => $index]],
            ],
            ['op' => 'roll', 'track' => $track, 'index' => $index, 'by_ticks' => $by],
            ['op' => 'slip', 'track' => $track, 'index' => $index, 'by_ticks' => $by],
            ['op' => 'move', 'track' => $track, 'index' => $index, 'to_track' => $random->getInt(0, 1), 'at_ticks' => $at],
            ['op' => 'close_gap', 'track' => $track, 'at_ticks' => $at, 'everywhere' => $at > 30],
            ['op' => 'enable', 'track' => $track, 'index' => $index, 'on' => $by > 0],
            ['op' => 'replace', 'track' => $track, 'index' => $index, 'source' => $item['source'], 'source_start_ticks' => $length],
            ['op' => 'set_track', 'track' => $track, 'name' => "T$by", 'locked' => false, 'enabled' => $at > 30],
            ['op' => 'add_track', 'kind' => $by > 0 ? 'picture' : 'sound', 'name' => "N$at", 'role' => 'effects'],
            ['op' => 'remove_track', 'track' => count($sequence->tracks) - 1],
            ['op' => 'level', 'track' => 2, 'index' => $index, 'gain_millibels' => 100 * $by, 'fade_in_ticks' => 1],
            ['op' => 'plain', 'from_ticks' => $at, 'to_ticks' => $at + $length],
            ['op' => 'angled', 'from_ticks' => $at, 'to_ticks' => $at + $length],
        ][$random->getInt(0, 21)];

        return self::ticks($op);
    }

    /** Two people change one cut from the same state: whoever comes second, the cut is the same, or neither is told a lie. */
    #[DataProvider('seeds')]
    public function test_two_changes_at_once_give_one_cut_in_either_order_or_are_refused(int $seed): void
    {
        $random = new Randomizer(new Mt19937($seed));
        $sequence = self::cut();
        $both = 0;
        for ($n = 0; $n < 500; $n++) {
            [$mine, $theirs] = [self::chance($random, $sequence), self::chance($random, $sequence)];
            $changes = [];
            foreach ([$mine, $theirs] as $op) {
                $changes[] = Restore::between($sequence, Operations::run($sequence, [$op])['sequence']);
            }
            [$a, $b] = $changes;
            $orders = [];
            foreach ([[$a, $b], [$b, $a]] as [$first, $second]) {
                try {
                    $done = $second->over($first)->apply($first->apply($sequence));
                    $orders[] = json_encode($done->toArray());
                    foreach ($done->tracks as $track) {
                        self::assertHolds($track);
                    }
                } catch (Refused) {
                    $orders[] = 'refused';
                }
            }
            self::assertSame($orders[0], $orders[1], (string) json_encode([$mine, $theirs]));
            $both += (int) ($orders[0] !== 'refused' && !$a->isNothing() && !$b->isNothing());
            // The next pair meets a cut of another shape.
            $sequence = $a->apply($sequence);
        }
        self::assertGreaterThan(20, $both, 'enough of them went together');
    }

    public function test_a_cut_that_was_packed_is_the_same_to_the_byte(): void
    {
        $random = new Randomizer(new Mt19937(7));
        $sequence = self::cut([['at_ticks' => self::FRAME, 'duration_ticks' => 0, 'name' => 'clap', 'note' => 'ä']]);
        for ($n = 0; $n < 60; $n++) {
            $sequence = Operations::run($sequence, [self::chance($random, $sequence)])['sequence'];
        }
        $packed = Packed::write($sequence);
        self::assertSame(json_encode($sequence->toArray()), json_encode(Packed::read($packed)->toArray()));
    }

    public function test_what_is_done_to_a_packed_cut_is_what_is_done_to_the_cut_itself(): void
    {
        $random = new Randomizer(new Mt19937(19));
        $plain = $kept = self::cut([]);
        for ($n = 0; $n < 120; $n++) {
            $operation = self::chance($random, $plain);
            $packed = Packed::read(Packed::write($kept));
            $done = Operations::run($packed, [$operation])['sequence'];
            $step = Restore::between($done, $packed);
            $plain = Operations::run($plain, [$operation])['sequence'];
            // Tracks that the step left alone are written as they were read.
            self::assertSame(json_encode($plain->toArray()), json_encode(Packed::read(Packed::write($done))->toArray()));
            self::assertSame($plain->durationTicks(), $done->durationTicks());
            foreach ($plain->tracks as $index => $track) {
                self::assertSame($track->count(), $done->tracks[$index]->count());
                self::assertSame($track->sourceIds(), $done->tracks[$index]->sourceIds());
            }
            self::assertSame(json_encode($packed->toArray()), json_encode($step->apply($done)->toArray()), 'and it leads back');
            $kept = $done;
        }
        self::assertLessThan(
            2 * strlen(Packed::write($plain)),
            strlen(Packed::write($kept)),
            'what nothing shows any more does not pile up',
        );
    }

    public function test_a_cut_that_was_kept_before_is_read_as_it_was(): void
    {
        $cut = self::cut();
        $now = json_decode(Packed::write($cut), true);
        $before = json_encode(
            [
                'sources' => array_map(static fn(string $one): mixed => json_decode($one, true), $now['sources']),
                'tracks' => array_map(
                    static fn(array $one): array => array_diff_key(['items' => json_decode($one['items'], true)] + $one, [
                        'count' => 0,
                        'end_ticks' => 0,
                    ]),
                    $now['tracks'],
                ),
            ] + $now,
            JSON_THROW_ON_ERROR,
        );
        $read = Packed::read($before);
        self::assertSame([$cut->durationTicks(), 3], [$read->durationTicks(), $read->tracks[0]->count()]);
        self::assertSame(json_encode($cut->toArray()), json_encode($read->toArray()));
    }

    public function test_a_packed_cut_that_breaks_a_rule_says_so(): void
    {
        $broken = str_replace('duration_ticks', 'durations', Packed::write(self::cut([])));
        $this->expectException(InvalidSequence::class);
        Packed::read($broken)->toArray();
    }

    public function test_an_edit_of_a_long_cut_is_a_short_step(): void
    {
        $items = [];
        for ($n = 0; $n < 2000; $n++) {
            $items[] = self::item('I' . $n % 20, 10, 20, 10 * $n);
        }
        $cut = Sequence::fromArray([
            'title' => 'long',
            'rate' => '25',
            'tracks' => [['kind' => 'picture', 'name' => 'V', 'items' => $items]],
        ]);
        $done = Operations::run($cut, [
            self::ticks(['op' => 'insert', 'at_ticks' => 5, 'items' => [['track' => 0, 'item' => self::item('new', 7)]]]),
        ]);
        self::assertLessThan(20_000, strlen((string) json_encode($done['inverse'][0]->toArray())), 'what only moved is not written down');
        $packed = Packed::write($done['sequence']);
        self::assertLessThan(strlen((string) json_encode($done['sequence']->toArray())) / 3, strlen($packed), 'each source stands once');
    }
}
