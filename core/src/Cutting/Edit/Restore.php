<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * Puts a cut back as it was before another operation: on each track that changed, some items in the place of some others, and
 * what stands behind them so much later. What only moved is not written down, so that an edit of a long cut is a short step.
 */
final readonly class Restore implements Operation
{
    /** @param  list<array{track: int, index: int, count: int, items: list<Item>, shift_ticks: int}>  $tracks */
    public function __construct(public array $tracks) {}

    /** What leads from one state of a cut back to the one before. Both have the same tracks. */
    public static function between(Sequence $after, Sequence $before): self
    {
        $changes = [];
        foreach ($before->tracks as $index => $track) {
            [$was, $is] = [$track->items, $after->tracks[$index]->items];
            $most = min(count($was), count($is));
            $head = 0;
            while ($head < $most && $was[$head] == $is[$head]) {
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
                if ($old->recordStartTicks - $new->recordStartTicks !== $shift || $old != $new->at($old->recordStartTicks)) {
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

        return new self($changes);
    }

    public function apply(Sequence $sequence): Sequence
    {
        $changed = [];
        foreach ($this->tracks as $change) {
            $items = ($sequence->tracks[$change['track']] ?? throw Refused::because('The cut has no such track.'))->items;
            if (count($items) < $change['index'] + $change['count']) {
                throw Refused::because('The cut is not as that step left it.');
            }
            $behind = array_map(
                static fn(Item $item): Item => $item->at(max(0, $item->recordStartTicks + $change['shift_ticks'])),
                array_slice($items, $change['index'] + $change['count']),
            );
            $changed[$change['track']] = [...array_slice($items, 0, $change['index']), ...$change['items'], ...$behind];
        }
        try {
            return $sequence->with($changed);
        } catch (InvalidSequence) {
            throw Refused::because('The cut is not as that step left it.');
        }
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
        ];
    }
}
