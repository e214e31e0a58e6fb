<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Cutting;

use Cartella\Core\Cutting\Edit\Operations;
use Cartella\Core\Cutting\Edit\Restore;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Packed;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Shown;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Tracks that come, go, are locked and cover each other; levels, and angle items as plain clips. */
final class TracksTest extends TestCase
{
    private const FRAME = 28_224_000;

    /** @return array<string, mixed> places and lengths in frames */
    private static function item(string $name, int $record, int $length, int $from = 0): array
    {
        return [
            'name' => $name,
            'source' => ['id' => $name, 'name' => $name, 'start_ticks' => 0, 'duration_ticks' => 200 * self::FRAME, 'rate' => '25'],
            'source_start_ticks' => $from * self::FRAME,
            'duration_ticks' => $length * self::FRAME,
            'record_start_ticks' => $record * self::FRAME,
        ];
    }

    /** @param  list<list<array<string, mixed>>>  $pictures  items of each track of picture */
    private static function cut(array $pictures): Sequence
    {
        $tracks = array_map(static fn(array $items): array => ['kind' => 'picture', 'name' => 'V', 'items' => $items], $pictures);

        return Sequence::fromArray([
            'title' => 'x',
            'rate' => '25',
            'tracks' => [...$tracks, ['kind' => 'sound', 'name' => 'A', 'items' => [self::item('S', 0, 40)]]],
        ]);
    }

    /** @param  list<Item>  $items */
    private static function told(array $items): string
    {
        return implode(
            ', ',
            array_map(
                static fn(Item $item): string => sprintf(
                    '%s %d-%d @%d',
                    $item->name,
                    $item->recordStartTicks / self::FRAME,
                    $item->recordEndTicks() / self::FRAME,
                    $item->sourceStartTicks / self::FRAME,
                ),
                $items,
            ),
        );
    }

    /**
     * Items as name, place, length, first frame of the source, and whether they are on. The page that shows a cut before the server has
     * said what it plays is held to the same list.
     *
     * @return array<string, array{list<list<array<string, mixed>>>, string}>
     */
    public static function stacks(): array
    {
        $item = static fn(array $one): array => ['enabled' => $one[4] ?? true] + self::item(...array_slice($one, 0, 4));

        return array_map(
            static fn(array $stack): array => [array_map(static fn(array $items): array => array_map($item, $items), $stack[0]), $stack[1]],
            json_decode((string) file_get_contents(__DIR__ . '/stacks.json'), true),
        );
    }

    /** @param  list<list<array<string, mixed>>>  $pictures */
    #[DataProvider('stacks')]
    public function test_a_later_track_covers_those_before_it_as_far_as_it_plays(array $pictures, string $seen): void
    {
        self::assertSame($seen, self::told(Shown::of(self::cut($pictures))));
    }

    public function test_a_track_that_shows_nothing_there_covers_nothing(): void
    {
        $cut = self::cut([[self::item('A', 0, 10)], [self::item('words', 2, 4)]]);
        self::assertSame('A 0-10 @0', self::told(Shown::of($cut, static fn(Item $item): bool => $item->name !== 'words')));
    }

    public function test_tracks_come_and_go_and_are_undone_with_what_they_were_called(): void
    {
        $cut = self::cut([[self::item('A', 0, 10)]]);
        $ops = [
            ['op' => 'add_track', 'kind' => 'sound', 'name' => 'Room tone', 'role' => 'ambience'],
            ['op' => 'append', 'track' => 2, 'item' => self::item('R', 0, 40)],
            ['op' => 'set_track', 'track' => 1, 'name' => 'Mara', 'locked' => true],
            ['op' => 'split', 'track' => 1, 'at_ticks' => 5 * self::FRAME],
            ['op' => 'remove_track', 'track' => 2],
            ['op' => 'remove_track', 'track' => 0],
        ];
        $done = Operations::run($cut, $ops);
        self::assertSame(
            ['Track 1 is locked.', 'Something lies on that track.', 'Only the last track can be taken away; turn this one off.'],
            array_column($done['refused'], 'reason'),
        );
        self::assertSame(['V', 'Mara', 'Room tone'], array_map(static fn($track): string => $track->name, $done['sequence']->tracks));
        self::assertSame(json_encode($done['sequence']->toArray()), json_encode(Packed::read(Packed::write($done['sequence']))->toArray()));
        $whole = Restore::between($done['sequence'], $cut);
        $back = Restore::fromArray(json_decode((string) json_encode($whole->toArray()), true))->apply($done['sequence']);
        self::assertSame(json_encode($cut->toArray()), json_encode($back->toArray()));
    }

    public function test_fades_stay_with_their_edges_and_a_split_is_joined_again_with_them(): void
    {
        $level = [
            'op' => 'level',
            'track' => 1,
            'index' => 0,
            'gain_millibels' => -450,
            'fade_in_ticks' => 2 * self::FRAME,
            'fade_out_ticks' => 3 * self::FRAME,
        ];
        $cut = Operations::run(self::cut([[]]), [$level])['sequence'];
        $split = Operations::run($cut, [['op' => 'split', 'track' => 1, 'at_ticks' => 20 * self::FRAME]])['sequence'];
        self::assertSame(
            [
                ['gain_millibels' => -450, 'fade_in_ticks' => 2 * self::FRAME],
                ['gain_millibels' => -450, 'fade_out_ticks' => 3 * self::FRAME],
            ],
            array_map(static fn(Item $item): array => $item->metadata, $split->tracks[1]->items),
        );
        $joined = Operations::run($split, [['op' => 'join', 'track' => 1, 'index' => 0]])['sequence'];
        self::assertSame(json_encode($cut->toArray()), json_encode($joined->toArray()));
        $refused = Operations::run(self::cut([[self::item('A', 0, 10)]]), [
            ['track' => 0] + $level,
            ['fade_in_ticks' => 39 * self::FRAME] + $level,
            ['gain_millibels' => 3000] + $level,
        ])['refused'];
        self::assertSame(
            ['Only sound has a level.', 'The fades are longer than the item.', 'A gain lies between -96 dB and +24 dB.'],
            array_column($refused, 'reason'),
        );
    }

    public function test_angle_items_become_plain_clips_and_angle_items_again(): void
    {
        $item = self::item('A', 0, 20);
        $angles = [
            'lineup' => 'day 2',
            'current' => 'A',
            'list' => array_map(
                static fn(string $letter): array => [
                    'angle' => $letter,
                    'source' => self::item($letter, 0, 1)['source'],
                    'start_ticks' => 0,
                ],
                ['A', 'B'],
            ),
        ];
        $cut = self::cut([[['angles' => $angles] + $item]]);
        $all = ['from_ticks' => 0, 'to_ticks' => 20 * self::FRAME];
        $turned = Operations::run($cut, [['op' => 'angle', 'takes' => 'picture', 'angle' => 'B', 'from_ticks' => 5 * self::FRAME] + $all])[
            'sequence'
        ];
        $plain = Operations::run($turned, [['op' => 'plain'] + $all]);
        self::assertSame([null, null], array_map(static fn(Item $one) => $one->angles, $plain['sequence']->tracks[0]->items));
        self::assertSame('A 0-5 @0, A 5-20 @5', self::told($plain['sequence']->tracks[0]->items));
        self::assertSame(
            ['Nothing there has another angle to show.'],
            array_column(
                Operations::run($plain['sequence'], [['op' => 'angle', 'takes' => 'both', 'angle' => 'A'] + $all])['refused'],
                'reason',
            ),
        );
        $again = Operations::run($plain['sequence'], [['op' => 'angled'] + $all])['sequence'];
        self::assertSame(json_encode($turned->toArray()), json_encode($again->toArray()));
        // What somebody else wrote there under that name is no angle.
        $strange = self::cut([[['metadata' => ['angles' => 'several']] + $item]]);
        self::assertCount(1, Operations::run($strange, [['op' => 'angled'] + $all])['refused']);
    }

    public function test_two_pieces_that_know_other_angles_stay_two(): void
    {
        $angles = static fn(string ...$letters): array => [
            'lineup' => 'day 2',
            'current' => 'A',
            'list' => array_map(
                static fn(string $letter): array => [
                    'angle' => $letter,
                    'source' => self::item($letter, 0, 1)['source'],
                    'start_ticks' => 0,
                ],
                $letters,
            ),
        ];
        $join = static fn(array $first, array $second): array => Operations::run(
            self::cut([[['angles' => $first] + self::item('A', 0, 10), ['angles' => $second] + self::item('A', 10, 10, 10)]]),
            [['op' => 'join', 'track' => 0, 'index' => 0]],
        );
        self::assertSame('A 0-20 @0', self::told($join($angles('A', 'B'), $angles('A', 'B'))['sequence']->tracks[0]->items));
        // Joined, the second would no more know that C rolled with it.
        self::assertSame(
            ['The second does not play on from the first.'],
            array_column($join($angles('A', 'B'), $angles('A', 'B', 'C'))['refused'], 'reason'),
        );
    }
}
