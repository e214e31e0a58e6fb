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
use Cartella\Core\Exchange\Aaf\AafReader;
use Cartella\Core\Exchange\Aaf\AafWriter;
use Cartella\Core\Exchange\Aaf\CompoundEntry;
use Cartella\Core\Exchange\Aaf\CompoundFile;
use Cartella\Core\Exchange\Exception\InvalidSequence;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Process;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Time\FrameRate;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Cuts as AAF: what is written is read again, and another program finds the same container. */
final class AafTest extends TestCase
{
    use Folder;

    private static function source(string $name, ?string $reel, FrameRate $rate, int $start = 90_000): Source
    {
        $frame = $rate->ticksPerFrame();

        return new Source($name, $name, "../proxies/$name 1.mp4", $reel, $start * $frame, 4000 * $frame, $rate);
    }

    private static function cut(int $seed): Sequence
    {
        $random = new Randomizer(new Mt19937($seed));
        $rate = FrameRate::parse(['23.976', '24', '25', '29.97df', '50'][$seed % 5]);
        $frame = $rate->ticksPerFrame();
        $tracks = [];
        foreach ([TrackKind::Picture, TrackKind::Sound] as $number => $kind) {
            $items = [];
            $at = $number * 7;
            foreach (range(1, $random->getInt(3, 25)) as $n) {
                $frames = $random->getInt(20, 90);
                $clip = $random->getInt(1, 6);
                $isAfter = $items !== [] && end($items)->recordEndTicks() === $at * $frame;
                // A sound that was slipped by samples keeps its place.
                $odd = $number === 1 && $seed % 2 === 0 ? 14_700 * $random->getInt(0, 500) : 0;
                $items[] = new Item(
                    $n % 4 === 0 ? "Item $n" : "Clip $clip",
                    self::source("Clip $clip", [null, 'A001', 'B ü 2'][$clip % 3], $rate, 90_000 + 5000 * $clip),
                    $frame * $random->getInt(1000, 1500) + $odd,
                    $frame * $frames,
                    $frame * $at,
                    $n % 7 !== 0,
                    $number === 0 && $n % 3 === 0 ? [new Marker($frame * 3, $frame * 2, 'here', 'a note')] : [],
                    look: $number === 0 && $n % 5 === 0 ? Cdl::of([1.1, 1, 0.9], [0, 0.01, 0], [1, 1, 1], 0.8) : null,
                    speed: $number === 0 && $n % 6 === 0
                        ? [new Speed(1, 2), new Speed(-1, 1), new Speed(3, 1)][$random->getInt(0, 2)]
                        : new Speed(),
                    transition: $number === 0 && $isAfter && $n % 6 !== 0 && end($items)->speed->isPlain() && $random->getInt(0, 2) === 0
                        ? new Transition($n % 2 === 0 ? 'dissolve' : 'wipe 3', $frame * 12, $frame * $random->getInt(0, 10))
                        : null,
                );
                $at += $frames + ($random->getInt(0, 2) === 0 ? 30 : 0);
            }
            $tracks[] = new Track($kind, ['V', 'A'][$number], $items);
        }

        return new Sequence("Cut $seed", $rate, 90_000 * $frame, $tracks, ['production' => 'Low Water']);
    }

    /** @return list<mixed> */
    private static function facts(Sequence $cut): array
    {
        $facts = [$cut->title, $cut->rate->label(), $cut->startTicks, $cut->metadata];
        foreach ($cut->tracks as $track) {
            foreach ($track->items as $item) {
                // Sound that does not lie on frames is counted in samples.
                $unit = $track->kind === TrackKind::Sound ? 14_700 : 1;
                $near = static fn(int $ticks): int => intdiv($ticks + intdiv($unit, 2), $unit);
                $facts[] = [
                    $track->name,
                    $item->name,
                    $item->source->name,
                    $item->source->reel,
                    $item->source->path,
                    $item->source->startTicks,
                    $item->source->rate?->label(),
                    $near($item->sourceStartTicks),
                    $near($item->recordEndTicks()),
                    $near($item->recordStartTicks),
                    $item->enabled,
                    (string) $item->speed,
                    $item->transition?->toArray(),
                    $item->ending?->toArray(),
                    $item->look?->toArray(),
                    array_map(static fn(Marker $one): array => $one->toArray(), $item->markers),
                ];
            }
        }

        return $facts;
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 20) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_a_cut_comes_back_as_it_was(int $seed): void
    {
        $cut = self::cut($seed);
        $bytes = AafWriter::write([$cut], [], $cut->rate, 1_790_000_000);
        $read = AafReader::read($bytes);
        self::assertSame([], $read->problems);
        self::assertEquals(self::facts($cut), self::facts($read->sequence));
        self::assertSame($bytes, AafWriter::write([$cut], [], $cut->rate, 1_790_000_000), 'the same bytes again');
    }

    public function test_fades_from_and_to_nothing_come_back(): void
    {
        $rate = FrameRate::parse('25');
        $frame = $rate->ticksPerFrame();
        $item = static fn(int $at, ?Transition $begins, ?Transition $ends): Item => new Item(
            'One',
            self::source('One', 'A001', $rate),
            1000 * $frame,
            50 * $frame,
            $at * $frame,
            transition: $begins,
            ending: $ends,
        );
        $cut = new Sequence('Fades', $rate, 0, [
            new Track(TrackKind::Picture, 'V', [
                $item(0, new Transition('dissolve', 12 * $frame), new Transition('dissolve', 10 * $frame)),
                $item(80, null, new Transition('dissolve', 10 * $frame)),
            ]),
        ]);
        self::assertEquals(self::facts($cut), self::facts(AafReader::read(AafWriter::write([$cut], [], $rate, 0))->sequence));
    }

    public function test_another_program_finds_the_container_whole(): void
    {
        if (!is_executable('/usr/bin/gsf')) {
            self::markTestSkipped('libgsf-bin is not installed.');
        }
        $cut = self::cut(3);
        $file = $this->file('cut.aaf', AafWriter::write([$cut], [], $cut->rate, 1_790_000_000));
        $run = Process::run(['gsf', 'list', $file], null, 60);
        self::assertSame(0, $run['status'], $run['error']);
        self::assertStringContainsString('Header-2/Content-3b03/Mobs-1901{0}/properties', $run['output']);
        $found = substr_count($run['output'], '/properties');
        $count = static function (CompoundEntry $entry) use (&$count): int {
            return (int) isset($entry->entries['properties']) + array_sum(array_map($count, $entry->entries));
        };
        self::assertSame($count(CompoundFile::read((string) file_get_contents($file))) - 1, $found, 'every object, but the root beside it');
    }

    public function test_a_container_of_any_shape_comes_back(): void
    {
        $random = new Randomizer(new Mt19937(7));
        $root = new CompoundEntry('Root Entry', str_repeat('r', 16));
        $all = [];
        foreach (range(1, 300) as $number) {
            $storage = $number % 7 === 0 ? $root->put(new CompoundEntry("Storage $number", str_repeat(chr($number % 256), 16))) : $root;
            $bytes = $random->getBytes([1, 63, 64, 65, 511, 4095, 4096, 4097, 100_000][$number % 9]);
            $storage->put(new CompoundEntry("Stream $number", '', $bytes));
            $all[($storage === $root ? '' : "Storage $number/") . "Stream $number"] = $bytes;
        }
        $root->put(new CompoundEntry('Empty', '', ''));
        $read = CompoundFile::read(CompoundFile::write($root));
        foreach ($all as $path => $bytes) {
            $entry = $read;
            foreach (explode('/', $path) as $name) {
                $entry = $entry->entries[$name] ?? self::fail("$path is gone");
            }
            self::assertTrue($entry->bytes === $bytes, $path);
        }
        self::assertSame('', $read->stream('Empty'));
    }

    #[DataProvider('seeds')]
    public function test_any_damage_is_refused_or_told_and_never_more(int $seed): void
    {
        $random = new Randomizer(new Mt19937(500 + $seed));
        $cut = self::cut($seed);
        $bytes = AafWriter::write([$cut], [], $cut->rate, 0);
        foreach (range(1, 30) as $round) {
            $broken = $bytes;
            for ($hits = $random->getInt(1, 20); $hits > 0; $hits--) {
                // The header and its tables more often than their share.
                $at = $random->getInt(0, $random->getInt(0, 1) === 0 ? 600 : strlen($broken) - 5);
                $broken = substr_replace($broken, $random->getBytes(4), $at, 4);
            }
            $broken = $random->getInt(0, 5) === 0 ? substr($broken, 0, $random->getInt(1, strlen($broken))) : $broken;
            try {
                self::assertNotNull(AafReader::read($broken)->sequence);
            } catch (InvalidSequence) {
                $this->addToAssertionCount(1);
            }
        }
    }
}
