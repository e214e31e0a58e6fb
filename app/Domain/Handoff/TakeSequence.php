<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Sequences\ClipSource;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\FrameRate;
use Illuminate\Support\Collection;

/**
 * A take as a cut: a track for every angle where it ran, and under the pictures one for each channel of the recordings, all on
 * the line-up's clock. Its first label is that of the first angle.
 */
final class TakeSequence
{
    /**
     * @param  Collection<int, Clip>  $here  what the package holds, by id
     * @param  callable(Clip, int|null): (string|null)  $pathOf  where the package keeps a clip's media, or one channel of them
     * @return array{sequence: Sequence, angles: array<string, Sequence>}|null the take with every angle, and each angle by itself with
     *     the recordings; null if no picture of it is here
     */
    public static function of(Take $take, Collection $here, callable $pathOf): ?array
    {
        $usual = $take->production->rate();
        $pictures = $sounds = [];
        foreach ($take->parts as $part) {
            $clip = $here[$part->clip_id] ?? null;
            $span = $clip === null ? null : self::span($clip, $part);
            if ($clip === null || $span === null) {
                continue;
            }
            if ($clip->isPicture()) {
                $pictures[] = [$clip, ...$span];
            } elseif ($clip->isSound()) {
                $sounds[] = [$clip, ...$span];
            }
        }
        if ($pictures === []) {
            return null;
        }
        usort(
            $pictures,
            static fn(array $x, array $y): int => [$x[0]->device->lane ?? 99, $x[0]->id] <=> [$y[0]->device->lane ?? 99, $y[0]->id],
        );
        $rate = $pictures[0][0]->rate() ?? $usual;
        // What is not lined up begins with the take.
        $placed = array_filter($pictures, static fn(array $one): bool => $one[3] !== null);
        $zero = $placed === [] ? 0 : min(array_column($placed, 3));
        $angles = [];
        $end = 0;
        foreach ($pictures as [$clip, $in, $length, $at]) {
            $start = $rate->ticksPerFrame() * (int) round((($at ?? $zero) - $zero) / $rate->ticksPerFrame());
            $name = $clip->device->letter ?? 'V';
            for ($number = 2; isset($angles[$name]); $number++) {
                $name = ($clip->device->letter ?? 'V') . " $number";
            }
            $angles[$name] = self::item($take, $clip, $in, $length, $start, $usual, $pathOf);
            $end = max($end, $start + $length);
        }
        $tracks = self::sound($take, $sounds, $placed === [] ? null : $zero, $end, $usual, $pathOf);
        $cut = static fn(string $title, array $pictures): Sequence => new Sequence(
            $title,
            $rate,
            self::label($pictures[array_key_first($pictures)]),
            [
                ...array_map(
                    static fn(string $name, Item $item): Track => new Track(TrackKind::Picture, $name, [$item]),
                    array_map(strval(...), array_keys($pictures)),
                    array_values($pictures),
                ),
                ...$tracks,
            ],
            ['production' => $take->production->name, 'take' => $take->label()],
        );
        $alone = [];
        foreach ($angles as $name => $item) {
            $alone[$name] = $cut($take->label() . " $name", [$name => $item]);
        }

        return ['sequence' => $cut($take->label(), $angles), 'angles' => $alone];
    }

    /** The label of the cut's first frame, by which its first angle reads its own timecode. */
    private static function label(Item $first): int
    {
        return $first->source->startTicks + $first->sourceStartTicks - $first->recordStartTicks;
    }

    /** @return array{int, int, int|null}|null in and length of a part in its clip, and where it begins on the line-up's clock */
    private static function span(Clip $clip, TakePart $part): ?array
    {
        $in = (int) $part->in_ticks;
        $length = ($part->out_ticks ?? (int) $clip->duration_ticks) - $in;
        $start = $clip->placement?->start_ticks;

        return $length <= 0 ? null : [$in, $length, $start === null ? null : $start + $in];
    }

    /** @param  callable(Clip, int|null): (string|null)  $pathOf */
    private static function item(
        Take $take,
        Clip $clip,
        int $in,
        int $length,
        int $at,
        FrameRate $usual,
        callable $pathOf,
        ?int $channel = null,
    ): Item {
        return new Item(
            $clip->title(),
            ClipSource::of($clip, $usual, $pathOf($clip, $channel)),
            $in,
            $length,
            $at,
            metadata: ['take' => $take->ulid, ...$channel === null ? ExchangeSequence::facts($take) : ['channels' => [$channel => 0.0]]],
            look: $channel === null ? Look::of($clip)?->cdl() : null,
        );
    }

    /**
     * @param  list<array{Clip, int, int, int|null}>  $sounds
     * @param  int|null  $zero  where the take begins on the line-up's clock; null if no picture is lined up
     * @param  callable(Clip, int|null): (string|null)  $pathOf
     * @return list<Track> one for each channel
     */
    private static function sound(Take $take, array $sounds, ?int $zero, int $end, FrameRate $usual, callable $pathOf): array
    {
        $tracks = [];
        foreach ($zero === null ? [] : $sounds as [$clip, $in, $length, $at]) {
            if ($at === null) {
                continue;
            }
            // Only what runs under a picture.
            $from = max($at, $zero);
            $to = min($at + $length, $zero + $end);
            if ($to <= $from) {
                continue;
            }
            foreach (array_values($clip->channels ?? []) as $number => $channel) {
                $name = trim((string) ($channel['name'] ?? '')) ?: 'Channel ' . ($number + 1);
                $tracks[] = new Track(TrackKind::Sound, $name, [
                    self::item($take, $clip, $in + $from - $at, $to - $from, $from - $zero, $usual, $pathOf, $number + 1),
                ]);
            }
        }

        return $tracks;
    }
}
