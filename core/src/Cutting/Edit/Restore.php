<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * Puts a cut back as it was before another operation: on each track that changed, some items in the place of some others, and
 * what stands behind them so much later. What only moved is not written down, so that an edit of a long cut is a short step.
 */
final readonly class Restore implements Operation
{
    /**
     * @param  list<array{track: int, index: int, count: int, items: list<Item>, shift_ticks: int}>  $tracks
     * @param  array<int, array{kind: string, name: string, role?: string, locked: bool, enabled: bool}|null>  $heads  what tracks are
     *     called and whether they are locked or off, for those that change; null takes an empty one away, and one behind the last comes
     */
    public function __construct(public array $tracks, public array $heads = []) {}

    /** What leads from one state of a cut back to the one before. Tracks come and go at the end only. */
    public static function between(Sequence $after, Sequence $before): self
    {
        $changes = [];
        for ($index = 0; $index < max(count($before->tracks), count($after->tracks)); $index++) {
            // Most steps leave most tracks alone; those are not even unpacked.
            if (($before->tracks[$index] ?? null) === ($after->tracks[$index] ?? null)) {
                continue;
            }
            [$was, $is] = array_map(static fn(Sequence $one): array => isset($one->tracks[$index]) ? $one->tracks[$index]->items : [], [
                $before,
                $after,
            ]);
            $most = min(count($was), count($is));
            $head = 0;
            while ($head < $most && ($was[$head] === $is[$head] || $was[$head] == $is[$head])) {
                $head++;
            }
            if ($head === count($was) && $head === count($is)) {
                continue;
            }
            $shift = $was === [] || $is === [] ? 0 : end($was)->recordStartTicks - end($is)->recordStartTicks;
            $tail = 0;
            while ($tail < $most - $head) {
                $old = $was[count($was) - 1 - $tail];
                $new = $is[count($is) - 1 - $tail];
                if ($old->recordStartTicks - $new->recordStartTicks !== $shift || !$old->isSameElsewhere($new)) {
                    break;
                }
                $tail++;
            }
            $changes[] = [
                'track' => $index,
                'index' => $head,
                'count' => count($is) - $head - $tail,
                'items' => array_slice($was, $head, count($was) - $head - $tail),
                'shift_ticks' => $tail === 0 ? 0 : $shift,
            ];
        }

        return new self($changes, self::headsBetween($after->tracks, $before->tracks));
    }

    /**
     * @param  list<Track>  $after
     * @param  list<Track>  $before
     * @return array<int, array{kind: string, name: string, role?: string, locked: bool, enabled: bool}|null>
     */
    private static function headsBetween(array $after, array $before): array
    {
        $heads = [];
        for ($index = 0; $index < max(count($after), count($before)); $index++) {
            $was = isset($before[$index]) ? $before[$index]->toHead() : null;
            if ((isset($after[$index]) ? $after[$index]->toHead() : null) !== $was) {
                $heads[$index] = $was;
            }
        }

        return $heads;
    }

    /**
     * The same change of a cut that another one changed meanwhile. Both start from the same state and say what leads from it to
     * theirs; the result starts from theirs. Where the two meet, nobody can say what was meant.
     *
     * @throws Refused if both changed the same items, or put something at the same place
     */
    public function over(self $meanwhile): self
    {
        $theirs = array_column($meanwhile->tracks, null, 'track');
        if (array_intersect_key($this->heads, $meanwhile->heads) !== []) {
            throw Refused::because('Somebody changed the same track of the cut meanwhile.');
        }
        $changes = [];
        foreach ($this->tracks as $change) {
            $their = $theirs[$change['track']] ?? null;
            if ($their === null) {
                $changes[] = $change;

                continue;
            }
            [$from, $to] = [$change['index'], $change['index'] + $change['count']];
            [$theirFrom, $theirTo] = [$their['index'], $their['index'] + $their['count']];
            $bothPutIn = $from === $to && $theirFrom === $theirTo && $from === $theirFrom;
            if ($to <= $theirFrom && !$bothPutIn) {
                // It lies before what they changed; what moves behind it moves theirs, too.
                $changes[] = $change;
            } elseif ($from >= $theirTo && !$bothPutIn) {
                $changes[] =
                    [
                        'index' => $from + count($their['items']) - $their['count'],
                        'items' => Track::moved($change['items'], 0, $their['shift_ticks']),
                    ] + $change;
            } else {
                throw Refused::because('Somebody changed the same place of the cut meanwhile.');
            }
        }

        return new self($changes, $this->heads);
    }

    public function isNothing(): bool
    {
        return $this->tracks === [] && $this->heads === [];
    }

    public function apply(Sequence $sequence): Sequence
    {
        $sequence = $this->come($sequence);
        $changed = [];
        foreach ($this->tracks as $change) {
            $items = ($sequence->tracks[$change['track']] ?? throw Refused::because('The cut has no such track.'))->items;
            if (count($items) < $change['index'] + $change['count']) {
                throw Refused::because('The cut is not as that step left it.');
            }
            $behind = array_slice($items, $change['index'] + $change['count']);
            if ($change['shift_ticks'] !== 0) {
                $behind = array_map(
                    static fn(Item $item): Item => $item->at(max(0, $item->recordStartTicks + $change['shift_ticks'])),
                    $behind,
                );
            }
            $changed[$change['track']] = [...array_slice($items, 0, $change['index']), ...$change['items'], ...$behind];
        }
        try {
            return $this->go($sequence->with($changed));
        } catch (InvalidSequence) {
            throw Refused::because('The cut is not as that step left it.');
        }
    }

    /** Tracks that come, and those that are called otherwise. */
    private function come(Sequence $sequence): Sequence
    {
        $tracks = $sequence->tracks;
        foreach ($this->heads as $index => $head) {
            if ($head === null) {
                continue;
            }
            if ($index > count($tracks)) {
                throw Refused::because('The cut is not as that step left it.');
            }
            $tracks[$index] = ($tracks[$index] ?? new Track(TrackKind::from($head['kind']), '', []))->headed($head);
        }

        return $this->heads === [] ? $sequence : $sequence->withTracks(array_values($tracks));
    }

    private function go(Sequence $sequence): Sequence
    {
        $tracks = $sequence->tracks;
        foreach (array_reverse(array_keys($this->heads, null, true)) as $index) {
            if ($index !== count($tracks) - 1 || $tracks[$index]->count() > 0) {
                throw Refused::because('The cut is not as that step left it.');
            }
            array_pop($tracks);
        }

        return count($tracks) === count($sequence->tracks) ? $sequence : $sequence->withTracks($tracks);
    }

    /**
     * @param  mixed  $data  decoded JSON of {@see self::toArray}
     *
     * @throws InvalidOperation if it is none
     */
    public static function fromArray(mixed $data): self
    {
        $read = Operations::read(0, $data);

        return $read instanceof self ? $read : throw InvalidOperation::because(0, 'it restores nothing');
    }

    /** @return array<string, mixed> as {@see Operations::read} takes it */
    public function toArray(): array
    {
        return [
            'op' => 'restore',
            'tracks' => array_map(
                static fn(array $change): array => [
                    'items' => array_map(static fn(Item $item): array => $item->toArray(), $change['items']),
                ] + $change,
                $this->tracks,
            ),
            ...$this->heads === []
                ? []
                : [
                    'heads' => array_map(
                        static fn(int $track, ?array $head): array => ['track' => $track, 'head' => $head],
                        array_keys($this->heads),
                        array_values($this->heads),
                    ),
                ],
        ];
    }
}
