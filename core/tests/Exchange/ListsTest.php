<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Exchange;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Speed;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Exchange\Edl\EdlReader;
use Cartella\Core\Exchange\Edl\EdlWriter;
use Cartella\Core\Exchange\Edl\ShortReels;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Otio\OtioReader;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Lists are written and read again, and nothing that they carry is lost; what is malformed costs only itself. */
final class ListsTest extends TestCase
{
    /** A cut by chance, of what both kinds of list carry. */
    private static function cut(int $seed): Sequence
    {
        $random = new Randomizer(new Mt19937($seed));
        $rate = FrameRate::parse(['23.976', '24', '25', '29.97', '29.97df', '30', '50', '59.94df'][$seed % 8]);
        $frame = $rate->ticksPerFrame();
        $tracks = [];
        foreach ([TrackKind::Picture, TrackKind::Sound, TrackKind::Sound] as $number => $kind) {
            $items = [];
            $at = $number === 0 ? 0 : $random->getInt(0, 40);
            foreach (range(1, $random->getInt(2, 30)) as $n) {
                $frames = $random->getInt(2, 90);
                $speed = [new Speed(), new Speed(), new Speed(1, 2), new Speed(2, 1), new Speed(-1, 1), new Speed(0, 1), new Speed(7, 3)][
                    $number === 0 ? $random->getInt(0, 6) : 0
                ];
                $reel = [null, 'A001', 'a001', 'A_VERY_LONG_REEL_1', 'A_VERY_LONG_REEL_2', 'BL', 'Rolle Ä'][$random->getInt(0, 6)];
                $clip = $random->getInt(1, 9);
                $isAfter = $items !== [] && end($items)->recordEndTicks() === $at * $frame;
                $items[] = new Item(
                    "Clip $clip",
                    new Source(
                        "$reel/$clip",
                        "Clip $clip",
                        "proxies/clip $clip.mp4",
                        $reel,
                        $random->getInt(0, 80_000 * $clip) * $frame,
                        4000 * $frame,
                        $rate,
                    ),
                    $frame * $random->getInt(1000, 2000),
                    $frame * $frames,
                    $frame * $at,
                    markers: $random->getInt(0, 3) === 0
                        ? [
                            new Marker(
                                $frame * $random->getInt(0, $frames - 1),
                                $frame * $random->getInt(0, 5),
                                'look: here',
                                'and 1 <more>',
                            ),
                        ]
                        : [],
                    look: $number === 0 && $random->getInt(0, 2) === 0 ? Cdl::of([1.1, 1, 0.9], [0, 0.01, -0.02], [1, 1, 1.2], 0.8) : null,
                    speed: $speed,
                    transition: $number === 0 && $isAfter && $random->getInt(0, 4) === 0
                        ? new Transition(['dissolve', 'wipe 12'][$random->getInt(0, 1)], $frame * $random->getInt(1, $frames))
                        : null,
                );
                $at += $frames + ($random->getInt(0, 3) === 0 ? $random->getInt(1, 50) : 0);
            }
            $tracks[] = new Track($kind, ['V', 'A', 'A2'][$number], $items);
        }

        // Also one that goes over midnight.
        return new Sequence('A cut', $rate, $frame * ($seed % 3 === 0 ? $rate->labelsPerDay() - 100 : 3600 * $rate->nominal), $tracks);
    }

    /**
     * What a list says of a cut, whatever the reader calls its sources.
     *
     * @return list<mixed>
     */
    private static function facts(Sequence $sequence, bool $isEdl): array
    {
        $day = $sequence->rate->labelsPerDay() * $sequence->rate->ticksPerFrame();
        $facts = [$sequence->title, $sequence->rate->label(), $sequence->startTicks];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $wraps = static fn(int $ticks): int => (($ticks % $day) + $day) % $day;
                $facts[] = [
                    $track->name,
                    $item->name,
                    $item->source->reel,
                    basename((string) $item->source->path),
                    $isEdl
                        ? $wraps($item->source->startTicks + $item->sourceStartTicks)
                        : $item->source->startTicks + $item->sourceStartTicks,
                    $item->recordStartTicks,
                    $item->durationTicks,
                    (string) $item->speed,
                    $item->transition?->toArray(),
                    $item->ending?->toArray(),
                    $item->look?->toArray(),
                    array_map(static fn(Marker $marker): array => $marker->toArray(), $item->markers),
                ];
            }
        }

        return $facts;
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 48) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_what_an_edit_list_carries_comes_back(int $seed): void
    {
        $cut = self::cut($seed);
        $texts = EdlWriter::write($cut);
        $read = EdlReader::read($texts, $cut->rate->withDropFrame(false));
        self::assertSame([], array_map(static fn(ListProblem $one): array => $one->toArray(), $read->problems));
        self::assertEquals(self::facts($cut, true), self::facts($read->sequence, true));
        self::assertSame($texts, EdlWriter::write($read->sequence), 'the same list again');
    }

    #[DataProvider('seeds')]
    public function test_what_a_timeline_carries_comes_back_whole(int $seed): void
    {
        $cut = self::cut($seed);
        $text = OtioWriter::write($cut);
        $read = OtioReader::read($text);
        self::assertSame([], $read->problems);
        self::assertSame(json_encode($cut->toArray()), json_encode($read->sequence->toArray()));
    }

    #[DataProvider('seeds')]
    public function test_a_timeline_without_our_own_words_says_the_same_times(int $seed): void
    {
        $cut = self::cut($seed);
        $plain = (string) preg_replace('/"cartella": \{(?:[^{}]|\{[^{}]*\})*\}/', '"other": {"kept": 1}', OtioWriter::write($cut));
        $read = OtioReader::read($plain)->sequence;
        $times = static fn(Sequence $one): array => array_map(
            static fn(array $fact): array => is_array($fact) ? [$fact[1], ...array_slice($fact, 4, 3)] : [],
            array_slice(self::facts($one, false), 3),
        );
        self::assertSame($times($cut), $times($read));
        self::assertStringContainsString('"kept": 1', OtioWriter::write($read), 'what others wrote is written back');
    }

    public function test_two_long_reels_never_share_a_short_name(): void
    {
        $short = ShortReels::of(self::cut(8));
        self::assertCount(6, $short);
        self::assertCount(6, array_unique(array_map(strtolower(...), $short)));
        self::assertSame([], array_filter($short, static fn(string $name): bool => preg_match('/\A[A-Za-z0-9_.-]{1,8}\z/', $name) !== 1));
        self::assertNotContains('BL', $short, 'black is no reel');
        self::assertContains('a001', array_map(strtolower(...), $short), 'the first of them keeps it');
    }

    public function test_an_event_in_every_form_that_is_written_is_read(): void
    {
        $read = EdlReader::read(
            "\xFF\xFE" .
                mb_convert_encoding(
                    implode("\r", [
                        'TITLE:   Reel 3',
                        'FCM: NON-DROP FRAME',
                        '* Cut by Ines',
                        '000001  A001   B     C   01:00:00:00 01:00:02:00 10:00:00:00 10:00:02:00',
                        'AUD   3 4',
                        '* ANYTHING ELSE: kept',
                        '2 A001 AA/V C 01:00:02:00 01:00:02:00 10:00:02:00 10:00:02:00',
                        '2 BL AA/V D 012 00:00:00:00 00:00:01:00 10:00:02:00 10:00:03:00',
                        '3  MY REEL 7  V2  C  2:00:00:00 2:00:01:00 10:00:00:00 10:00:01:00',
                        '4  A002  NONE  C  02:00:00:00 02:00:01:00 10:00:05:00 10:00:06:00',
                        '',
                        'M2   A002   025.0   02:00:00:00',
                    ]),
                    'UTF-16LE',
                    'UTF-8',
                ),
            FrameRate::parse('25'),
        );
        $tracks = $read->sequence->tracks;
        self::assertSame(
            ['V', 'V2', 'A', 'A2', 'A3', 'A4'],
            array_map(static fn(Track $track): string => $track->name, [
                $tracks[0],
                $tracks[1],
                $tracks[2],
                ...array_slice([...$tracks, new Track(TrackKind::Sound, 'A2', [])], -1),
                ...array_slice($tracks, 3),
            ]),
        );
        self::assertSame((12 * Ticks::PER_SECOND) / 25, $tracks[0]->items[0]->ending?->durationTicks, 'it ends in black');
        self::assertSame('MY REEL 7', $tracks[1]->items[0]->source->reel);
        self::assertSame(['comments' => ['ANYTHING ELSE: kept']], $tracks[0]->items[0]->metadata['edl']);
        self::assertSame(['comments' => ['Cut by Ines']], $read->sequence->metadata['edl']);
        self::assertSame([10], array_map(static fn(ListProblem $one): ?int => $one->line, $read->problems));
    }

    /** @return array<string, array{string, list<int>, int}> a list, the lines that are wrong, and how many items are read */
    public static function malformed(): array
    {
        $event = '001  A001     V     C        01:00:00:00 01:00:02:00 10:00:00:00 10:00:02:00';
        $next = '002  A001     V     C        01:00:00:00 01:00:02:00 10:00:02:00 10:00:04:00';

        return [
            'a line of another kind' => ["$event\nrubbish\n$next", [2], 2],
            'an event that is cut off' => ["$event\n" . substr($next, 0, 60) . "\n$event", [2, 3], 2],
            'a label that is none' => ["$event\n" . str_replace('01:00:02:00', '01:00:02:25', $next), [2], 1],
            'an hour too many' => [str_replace('10:00:00:00', '25:00:00:00', $event) . "\n$next", [1], 1],
            'nothing long' => ["$event\n" . str_replace('10:00:04:00', '10:00:02:00', $next), [2], 1],
            'back in time' => ["$event\n" . str_replace('10:00:04:00', '10:00:01:00', $next), [2], 1],
            'over another' => ["$event\n" . str_replace('10:00:02:00 10', '10:00:01:00 10', $next), [2, 2], 2],
            'a correction of words' => ["$event\n* ASC_SOP (a b c)\n$next", [2], 2],
            'a correction out of range' => ["$event\n* ASC_SAT -1\n$next", [2], 2],
            'a speed of another reel' => ["$event\nM2   B007   050.0   01:00:00:00\n$next", [2], 2],
            'a dissolve of no length' => ["$event\n" . str_replace('C     ', 'D     ', $next), [2], 2],
            'drop frame where there is none' => ["FCM: DROP FRAME\n$event\n$next", [1], 2],
            'a marker nowhere' => ["$event\n* LOC: there GREEN x\n$next", [2], 2],
            'a line without an end' => ["$event\n" . str_repeat('x', 5000) . "\n$next", [2], 2],
        ];
    }

    /** @param  list<int>  $lines */
    #[DataProvider('malformed')]
    public function test_a_malformed_line_is_told_and_the_rest_is_read(string $text, array $lines, int $items): void
    {
        $read = EdlReader::read($text, FrameRate::parse('25'));
        self::assertSame($lines, array_map(static fn(ListProblem $one): ?int => $one->line, $read->problems));
        self::assertSame($items, array_sum(array_map(static fn(Track $track): int => count($track->items), $read->sequence->tracks)));
    }

    public function test_what_a_timeline_has_that_nobody_knows_stays_where_it_was(): void
    {
        $foreign = <<<'JSON'
        {"OTIO_SCHEMA": "Timeline.1", "name": "Theirs", "metadata": {"their": {"empty": {}, "list": []}},
         "global_start_time": {"OTIO_SCHEMA": "RationalTime.1", "rate": 24.0, "value": 86400.0},
         "tracks": {"OTIO_SCHEMA": "Stack.1", "name": "tracks", "children": [
           {"OTIO_SCHEMA": "Track.1", "name": "Pictures", "kind": "Video", "metadata": {"their": 1}, "children": [
             {"OTIO_SCHEMA": "Clip.1", "name": "One",
                  "source_range": {"start_time": {"rate": 24, "value": 100}, "duration": {"rate": 24, "value": 48}},
              "effects": [{"OTIO_SCHEMA": "Blur.3", "radius": 1.0}],
              "media_reference": {"OTIO_SCHEMA": "ExternalReference.1", "target_url": "file:///cards/A%20001/One.mov",
                                      "metadata": {"their": true}}},
             {"OTIO_SCHEMA": "Title.7", "text": "THE END",
                  "source_range": {"start_time": {"rate": 24, "value": 0}, "duration": {"rate": 24, "value": 12}}},
             {"OTIO_SCHEMA": "Clip.2", "name": "Two",
                  "source_range": {"start_time": {"rate": 30, "value": 30}, "duration": {"rate": 30, "value": 60}},
              "media_references": {"DEFAULT_MEDIA": {"OTIO_SCHEMA": "SpaceReference.9", "orbit": 3}},
                   "active_media_reference_key": "DEFAULT_MEDIA"}]},
           {"OTIO_SCHEMA": "Track.1", "name": "Smells", "kind": "Smell", "children": []}]}}
        JSON;
        $read = OtioReader::read($foreign);
        self::assertSame(
            ['tracks.children.0.children.1', 'tracks.children.1'],
            array_map(static fn(ListProblem $one): string => $one->path, $read->problems),
        );
        self::assertSame(
            ['track 1, item 2', 'track 2'],
            array_map(static fn(ListProblem $one): string => $one->where(), $read->problems),
            'people count from one',
        );
        [$one, $two] = $read->sequence->tracks[0]->items;
        self::assertSame(['/cards/A 001/One.mov', 2 * Ticks::PER_SECOND], [$one->source->path, $one->durationTicks]);
        self::assertSame(intdiv(5 * Ticks::PER_SECOND, 2), $two->recordStartTicks, 'what is not known takes its time');
        $written = json_decode(OtioWriter::write(Sequence::fromArray(json_decode((string) json_encode($read->sequence->toArray()), true))));
        $track = $written->tracks->children[0];
        self::assertEquals(json_decode($foreign)->tracks->children[0]->children[1], $track->children[1]);
        self::assertEquals((object) ['empty' => (object) [], 'list' => []], $written->metadata->their);
        self::assertSame('Blur.3', $track->children[0]->effects[0]->OTIO_SCHEMA);
        self::assertSame(
            [true, 'file:///cards/A%20001/One.mov'],
            [
                $track->children[0]->media_references->DEFAULT_MEDIA->metadata->their,
                $track->children[0]->media_references->DEFAULT_MEDIA->target_url,
            ],
        );
        self::assertSame(3, $track->children[2]->media_references->DEFAULT_MEDIA->orbit);
        self::assertSame('Smell', $written->tracks->children[1]->kind);
    }

    public function test_a_dissolve_around_its_cut_and_one_to_nothing_come_back_from_a_timeline(): void
    {
        $frame = FrameRate::parse('25')->ticksPerFrame();
        $item = static fn(int $at, ?Transition $begins, ?Transition $ends): Item => new Item(
            "At $at",
            new Source("$at", "At $at", null, 'A001', 0, 1000 * $frame, null),
            100 * $frame,
            50 * $frame,
            $at * $frame,
            transition: $begins,
            ending: $ends,
        );
        $cut = new Sequence('Fades', FrameRate::parse('25'), 0, [
            new Track(TrackKind::Picture, 'V', [
                $item(0, new Transition('dissolve', 10 * $frame), null),
                $item(50, new Transition('dissolve', 20 * $frame, 8 * $frame), new Transition('dissolve', 12 * $frame)),
                $item(130, null, null),
            ]),
        ]);
        self::assertEquals($cut, OtioReader::read(OtioWriter::write($cut))->sequence);
        // An edit list says where a dissolve begins, so the cut lies there.
        $read = EdlReader::read(EdlWriter::write($cut), FrameRate::parse('25'))->sequence->tracks[0]->items;
        self::assertSame([0, 42, 130], array_map(static fn(Item $one): int => intdiv($one->recordStartTicks, $frame), $read));
        self::assertSame(
            [100, 92, 100],
            array_map(static fn(Item $one): int => intdiv($one->source->startTicks + $one->sourceStartTicks, $frame), $read),
        );
        self::assertSame(12 * $frame, $read[1]->ending?->durationTicks);
    }

    /** @return array<string, array{callable(): mixed}> */
    public static function none(): array
    {
        return [
            'an empty list' => [static fn(): mixed => EdlReader::read('', FrameRate::parse('25'))],
            'a list of words' => [static fn(): mixed => EdlReader::read("TITLE: x\nhello\n", FrameRate::parse('25'))],
            'no JSON' => [static fn(): mixed => OtioReader::read('{"OTIO_SCHEMA": "Timeline.1"')],
            'JSON of something else' => [static fn(): mixed => OtioReader::read('{"name": "x"}')],
            'a list' => [static fn(): mixed => OtioReader::read('[]')],
            'deeper than anything' => [
                static fn(): mixed => OtioReader::read(str_repeat('{"tracks":', 5000) . '1' . str_repeat('}', 5000)),
            ],
            'a collection of nothing' => [
                static fn(): mixed => OtioReader::read('{"OTIO_SCHEMA": "SerializableCollection.1", "children": []}'),
            ],
        ];
    }

    /** @param  callable(): mixed  $read */
    #[DataProvider('none')]
    public function test_what_is_no_list_is_refused(callable $read): void
    {
        $this->expectException(InvalidSequence::class);
        $read();
    }

    #[DataProvider('seeds')]
    public function test_any_damage_is_told_or_refused_and_never_more(int $seed): void
    {
        $random = new Randomizer(new Mt19937(1000 + $seed));
        $cut = self::cut($seed);
        $texts = [implode('', EdlWriter::write($cut)), OtioWriter::write($cut)];
        $bits = [
            '',
            '"',
            '}',
            ' ',
            "\n",
            '-1',
            '9999999999999999999',
            'null',
            '1e999',
            '[]',
            '{}',
            "\0",
            "\xFF",
            'V',
            'BL',
            '00:00:00:00',
            '.0',
            '*',
        ];
        foreach (range(1, 40) as $round) {
            foreach ($texts as $which => $text) {
                for ($hits = $random->getInt(1, 4); $hits > 0; $hits--) {
                    $at = $random->getInt(0, strlen($text) - 1);
                    $text = substr_replace($text, $bits[$random->getInt(0, count($bits) - 1)], $at, $random->getInt(0, 12));
                }
                try {
                    $read = $which === 0 ? EdlReader::read($text, $cut->rate) : OtioReader::read($text);
                } catch (InvalidSequence) {
                    $this->addToAssertionCount(1);

                    continue;
                }
                // What is read is a cut that holds: it can be written and read again.
                $again =
                    $which === 0
                        ? EdlReader::read(EdlWriter::write($read->sequence), $read->sequence->rate)
                        : OtioReader::read(OtioWriter::write($read->sequence));
                self::assertSame($read->sequence->rate->name, $again->sequence->rate->name, "seed $seed, round $round");
            }
        }
    }
}
