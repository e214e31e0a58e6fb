<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Exchange;

use Cartella\Core\Cutting\ChangeKind;
use Cartella\Core\Cutting\Comparison;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\PullRanges;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Speed;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Relink\Candidate;
use Cartella\Core\Exchange\Relink\LinkWay;
use Cartella\Core\Exchange\Relink\Relink;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What an event of a list means, said by what is here; and what became of a cut. */
final class RelinkTest extends TestCase
{
    private static function rate(): FrameRate
    {
        return FrameRate::parse('25');
    }

    private static function ticks(string $label): int
    {
        return Ticks::ofFrames(Timecode::parse($label, self::rate()), self::rate());
    }

    private static function clip(
        string $name,
        ?string $reel,
        string $from,
        int $seconds,
        bool $isSound = false,
        bool $hasTimecode = true,
        string $hash = '',
    ): Candidate {
        $source = new Source(
            "id $name $reel",
            $name,
            null,
            $reel,
            $hasTimecode ? self::ticks($from) : 0,
            $seconds * Ticks::PER_SECOND,
            self::rate(),
        );

        return new Candidate(
            $source,
            $isSound,
            [$name, "{$reel}_$name", "$name.mov"],
            $hash === '' ? [] : [$hash],
            "card $reel",
            $hasTimecode,
        );
    }

    /** @return list<Candidate> */
    private static function here(): array
    {
        return [
            self::clip('A003C001', 'A003', '10:40:00:00', 30),
            self::clip('A003C002', 'A003', '10:40:40:00', 15),
            self::clip('B003C001', 'A003', '10:40:10:00', 60, isSound: true),
            self::clip('Two of one name', 'B001', '11:00:00:00', 60),
            self::clip('Two of one name', 'B002', '11:00:00:00', 60),
            self::clip('Phone 1', 'PHONE', '00:00:00:00', 20, hasTimecode: false),
            self::clip('Night', 'N001', '23:59:50:00', 30),
            self::clip('Long', 'A_VERY_LONG_REEL', '12:00:00:00', 60),
            self::clip('Hashed', 'H001', '09:00:00:00', 60, hash: 'xxh128:abc'),
        ];
    }

    /** @param  array<string, mixed>  $metadata */
    private static function event(
        ?string $reel,
        string $from,
        int $frames,
        string $name = 'Untitled',
        string $id = 'x',
        array $metadata = [],
        ?string $path = null,
    ): Item {
        $length = $frames * self::rate()->ticksPerFrame();

        return new Item(
            $name,
            new Source($id, $name, $path, $reel, self::ticks($from), $length, self::rate()),
            0,
            $length,
            0,
            metadata: $metadata,
        );
    }

    /** @return array<string, array{Item, LinkWay, string, string}> an event, how it is found, the clip, and a part of the reason */
    public static function events(): array
    {
        return [
            'by reel and timecode' => [self::event('A003', '10:40:05:00', 50), LinkWay::Timecode, 'A003C001', 'Reel A003 holds'],
            'whatever the capitals' => [self::event('a003', '10:40:45:00', 50), LinkWay::Timecode, 'A003C002', 'holds this timecode'],
            'to the last frame' => [self::event('A003', '10:40:54:24', 1), LinkWay::Timecode, 'A003C002', 'holds'],
            'behind the card' => [
                self::event('A003', '10:41:07:00', 50),
                LinkWay::None,
                '',
                'Reel A003 is here, but not at 10:41:07:00: the card ends at 10:40:55:00',
            ],
            'before the card' => [self::event('A003', '09:00:00:00', 50), LinkWay::None, '', 'the card begins at 10:40:00:00'],
            'between two clips' => [
                self::event('A003', '10:40:32:00', 50),
                LinkWay::None,
                '',
                'between A003C001 and A003C002 nothing was recorded',
            ],
            'over the end of a clip' => [self::event('A003', '10:40:29:00', 50), LinkWay::None, '', 'A003C001 ends at 10:40:30:00'],
            'a reel that is not here' => [self::event('Z009', '10:40:00:00', 50, 'Nothing'), LinkWay::None, '', 'Reel Z009 is not here'],
            'by name on another reel' => [
                self::event('WRONG', '10:40:42:00', 50, 'A003C002'),
                LinkWay::Name,
                'A003C002',
                'name is the same',
            ],
            'by the name that a package gave' => [
                self::event(null, '10:40:42:00', 50, '3/2', path: '../proxies/A003_A003C002.mp4'),
                LinkWay::Name,
                'A003C002',
                'name',
            ],
            'a name that two have' => [
                self::event(null, '11:00:10:00', 50, 'Two of one name'),
                LinkWay::None,
                '',
                '2 clips could be meant',
            ],
            'which of them, its reel says' => [
                self::event('B002', '11:00:10:00', 50, 'Two of one name'),
                LinkWay::Timecode,
                'Two of one name',
                'B002',
            ],
            'without timecode' => [self::event(null, '00:00:05:00', 50, 'Phone 1'), LinkWay::Name, 'Phone 1', 'name'],
            'over midnight' => [self::event('N001', '00:00:05:00', 50), LinkWay::Timecode, 'Night', 'N001'],
            'a reel of eight letters' => [self::event('A_VERY_L', '12:00:05:00', 50), LinkWay::Timecode, 'Long', 'holds'],
            'by its hash' => [self::event('OTHER', '09:00:05:00', 50, metadata: ['hash' => 'XXH128:ABC']), LinkWay::Hash, 'Hashed', 'hash'],
            'by our own mark' => [self::event('OTHER', '09:00:05:00', 50, id: 'id Hashed H001'), LinkWay::Own, 'Hashed', 'mark'],
            'sound for a picture' => [self::event(null, '10:40:15:00', 50, 'B003C001'), LinkWay::None, '', 'is sound'],
        ];
    }

    #[DataProvider('events')]
    public function test_an_event_finds_its_clip_or_says_why_not(Item $event, LinkWay $way, string $clip, string $reason): void
    {
        $candidates = self::here();
        $link = (new Relink($candidates, self::rate()))->find($event, new Track(TrackKind::Picture, 'V', []));
        self::assertSame([$way, $clip], [$link->way, $link->candidate?->source->name ?? ''], $link->reason);
        self::assertStringContainsString($reason, $link->reason);
        if ($link->candidate !== null && $link->candidate->hasTimecode && $way !== LinkWay::None) {
            $day = self::rate()->labelsPerDay() * self::rate()->ticksPerFrame();
            self::assertSame(
                $event->source->startTicks % $day,
                ($link->candidate->source->startTicks + $link->sourceStartTicks) % $day,
                'it shows the same moment',
            );
        }
    }

    public function test_a_linked_cut_keeps_all_but_its_sources(): void
    {
        $cut = new Sequence('Theirs', self::rate(), 0, [new Track(TrackKind::Picture, 'V', [self::event('A003', '10:40:05:00', 50)])]);
        $linked = (new Relink(self::here(), self::rate()))->all($cut, [['event 001, line 3']]);
        $item = $linked->tracks[0]->items[0];
        self::assertSame(['id A003C001 A003', 5 * Ticks::PER_SECOND], [$item->source->id, $item->sourceStartTicks]);
        self::assertSame(['timecode', 'event 001, line 3'], [$item->metadata['link']['way'], $item->metadata['link']['place']]);
        self::assertSame([$cut->title, $cut->rate, $cut->durationTicks()], [$linked->title, $linked->rate, $linked->durationTicks()]);
    }

    /** @param  list<array{string, int, int, int}>  $items  source, from, frames, at; in frames */
    private static function cut(array $items, ?Speed $speed = null): Sequence
    {
        $frame = self::rate()->ticksPerFrame();

        return new Sequence('Cut', self::rate(), 0, [
            new Track(
                TrackKind::Picture,
                'V',
                array_map(
                    static fn(array $one): Item => new Item(
                        $one[0],
                        new Source($one[0], $one[0], null, null, 0, 10_000 * $frame, null),
                        $one[1] * $frame,
                        $one[2] * $frame,
                        $one[3] * $frame,
                        speed: $speed ?? new Speed(),
                    ),
                    $items,
                ),
            ),
        ]);
    }

    /** @return array<string, array{list<array{string, int, int, int}>, list<array{string, string}>, int}> a cut, its changes, the same */
    public static function changes(): array
    {
        return [
            'nothing' => [[['a', 0, 50, 0], ['b', 10, 50, 50], ['c', 0, 50, 100], ['a', 200, 25, 150]], [], 4],
            'one taken out, the rest comes earlier' => [[['a', 0, 50, 0], ['c', 0, 50, 50], ['a', 200, 25, 100]], [['gone', 'b']], 3],
            'one put in' => [
                [['a', 0, 50, 0], ['b', 10, 50, 50], ['x', 0, 5, 100], ['c', 0, 50, 105], ['a', 200, 25, 155]],
                [['new', 'x']],
                4,
            ],
            'a head that grew' => [[['a', 0, 50, 0], ['b', 5, 55, 50], ['c', 0, 50, 105], ['a', 200, 25, 155]], [['longer', 'b']], 3],
            'a tail that shrank' => [[['a', 0, 40, 0], ['b', 10, 50, 40], ['c', 0, 50, 90], ['a', 200, 25, 140]], [['shorter', 'a']], 3],
            'another part of it' => [[['a', 0, 50, 0], ['b', 20, 50, 50], ['c', 0, 50, 100], ['a', 200, 25, 150]], [['slipped', 'b']], 3],
            'another order' => [[['b', 10, 50, 0], ['a', 0, 50, 50], ['c', 0, 50, 100], ['a', 200, 25, 150]], [['moved', 'b']], 3],
        ];
    }

    /**
     * @param  list<array{string, int, int, int}>  $after
     * @param  list<array{string, string}>  $changes
     */
    #[DataProvider('changes')]
    public function test_what_became_of_a_cut_is_told_by_its_items(array $after, array $changes, int $same): void
    {
        $before = self::cut([['a', 0, 50, 0], ['b', 10, 50, 50], ['c', 0, 50, 100], ['a', 200, 25, 150]]);
        $found = new Comparison($before, self::cut($after));
        $told = array_map(static fn($one): array => [$one->kind->value, $one->is->name ?? ($one->was->name ?? '')], $found->changes);
        // Of two that changed places one has moved; which one nobody can say.
        $told = array_map(static fn(array $one): array => $one[0] === 'moved' ? ['moved', 'b'] : $one, $told);
        self::assertSame([$changes, $same], [$told, $found->same]);
    }

    public function test_a_source_that_is_used_a_thousand_times_is_compared_as_any_other(): void
    {
        $items = array_map(static fn(int $n): array => ['a', 2 * $n, 50, 50 * $n], range(0, 1999));
        $before = self::cut($items);
        array_splice($items, 700, 1);
        $found = new Comparison(
            $before,
            self::cut(array_map(static fn(array $one, int $n): array => [$one[0], $one[1], 50, 50 * $n], $items, array_keys($items))),
        );
        self::assertSame([1999, ['gone']], [$found->same, array_map(static fn($one): string => $one->kind->value, $found->changes)]);
    }

    public function test_less_than_a_frame_is_no_change(): void
    {
        $before = self::cut([['a', 0, 50, 0], ['b', 10, 50, 50]]);
        $items = $before->tracks[0]->items;
        $frame = self::rate()->ticksPerFrame();
        $rounded = $before->with([0 => [$items[0], $items[1]->with(sourceStart: 10 * $frame - intdiv($frame, 3))]]);
        self::assertSame([[], 2], [(new Comparison($before, $rounded))->changes, (new Comparison($before, $rounded))->same]);
        $slipped = $before->with([0 => [$items[0], $items[1]->with(sourceStart: 9 * $frame)]]);
        self::assertCount(1, (new Comparison($before, $slipped))->changes);
    }

    public function test_another_speed_is_told_as_that(): void
    {
        $found = new Comparison(self::cut([['a', 0, 50, 0]]), self::cut([['a', 0, 50, 0]], new Speed(2, 1)));
        self::assertSame([ChangeKind::Speed], array_map(static fn($one): ChangeKind => $one->kind, $found->changes));
    }

    public function test_what_a_cut_needs_of_its_sources_has_handles_and_is_pulled_once(): void
    {
        $frame = self::rate()->ticksPerFrame();
        $needs = PullRanges::of(self::cut([['a', 0, 50, 0], ['a', 60, 50, 50], ['a', 500, 50, 100], ['b', 9990, 10, 150]]), 12 * $frame);
        $frames = static fn(array $ranges): array => array_map(
            static fn(array $one): array => [intdiv($one[0], $frame), intdiv($one[1], $frame)],
            $ranges,
        );
        self::assertSame([[0, 122], [488, 562]], $frames($needs['a']['ranges']), 'two that touch are one');
        self::assertSame([[9978, 10_000]], $frames($needs['b']['ranges']), 'no further than the source goes');
    }
}
