<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\SequenceReader;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Exception\InvalidSequence;

/** Operations of a cut from JSON, and a list of them one after the other. */
final class Operations
{
    /**
     * Carries out a list of operations; one that is refused leaves the cut as it was, and the next ones go on.
     *
     * @param  list<mixed>  $list  decoded JSON, see docs/formats.md
     * @return array{sequence: Sequence, inverse: list<Restore>, refused: list<array{index: int, reason: string}>} the inverse,
     *     carried out in its order on the result, gives the first sequence again
     *
     * @throws InvalidOperation if one of them is none
     */
    public static function run(Sequence $sequence, array $list): array
    {
        $inverse = $refused = [];
        foreach ($list as $index => $data) {
            try {
                $done = self::read((int) $index, $data)->apply($sequence);
                array_unshift($inverse, Restore::between($done, $sequence));
                $sequence = $done;
            } catch (Refused $no) {
                $refused[] = ['index' => (int) $index, 'reason' => $no->getMessage()];
            }
        }

        return ['sequence' => $sequence, 'inverse' => $inverse, 'refused' => $refused];
    }

    /**
     * @throws InvalidOperation if it is none
     * @throws Refused if an item of it cannot be, such as one that reads outside its source
     */
    public static function read(int $index, mixed $data): Operation
    {
        try {
            $op = new SequenceReader('operation', $data);

            return match ($op->text('op')) {
                'append' => new Append($op->whole('track'), $op->child('item')->item(0)),
                'insert' => new Insert($op->whole('at_ticks'), self::items($op)),
                'lay_over' => new LayOver($op->whole('track'), $op->whole('at_ticks'), $op->child('item')->item(0)),
                'lift' => new Lift($op->whole('track'), $op->whole('from_ticks'), $op->whole('to_ticks')),
                'extract' => new Extract($op->whole('from_ticks'), $op->whole('to_ticks')),
                'split' => new Split($op->whole('track'), $op->whole('at_ticks')),
                'join' => new Join($op->whole('track'), $op->whole('index')),
                'trim' => new Trim(
                    $op->whole('track'),
                    $op->whole('index'),
                    Edge::tryFrom($op->text('edge')) ?? throw InvalidOperation::because($index, 'its edge is neither head nor tail'),
                    $op->whole('by_ticks'),
                    $op->flag('ripple', false),
                    array_map(
                        static fn(SequenceReader $one): array => ['track' => $one->whole('track'), 'index' => $one->whole('index')],
                        $op->has('with') ? $op->list('with') : [],
                    ),
                ),
                'roll' => new Roll($op->whole('track'), $op->whole('index'), $op->whole('by_ticks')),
                'slip' => new Slip($op->whole('track'), $op->whole('index'), $op->whole('by_ticks')),
                'move' => new Move($op->whole('track'), $op->whole('index'), $op->whole('to_track'), $op->whole('at_ticks')),
                'close_gap' => new CloseGap($op->whole('track'), $op->whole('at_ticks'), $op->flag('everywhere', false)),
                'enable' => new Enable($op->whole('track'), $op->whole('index'), self::on($index, $op)),
                'replace' => new Replace(
                    $op->whole('track'),
                    $op->whole('index'),
                    $op->child('source')->source(),
                    $op->whole('source_start_ticks'),
                ),
                'angle' => new Angle($op->whole('from_ticks'), $op->whole('to_ticks'), self::takes($index, $op), $op->text('angle')),
                'add_track' => new AddTrack(
                    TrackKind::tryFrom($op->text('kind')) ??
                        throw InvalidOperation::because($index, 'its track is neither picture nor sound'),
                    $op->text('name'),
                    $op->text('role', ''),
                ),
                'set_track' => new SetTrack(
                    $op->whole('track'),
                    $op->has('name') ? $op->text('name') : null,
                    $op->has('role') ? $op->text('role') : null,
                    $op->has('locked') ? $op->flag('locked', false) : null,
                    $op->has('enabled') ? $op->flag('enabled', true) : null,
                ),
                'remove_track' => new RemoveTrack($op->whole('track')),
                'level' => new Level(
                    $op->whole('track'),
                    $op->whole('index'),
                    $op->whole('gain_millibels', 0),
                    $op->whole('fade_in_ticks', 0),
                    $op->whole('fade_out_ticks', 0),
                ),
                'plain' => new Plain($op->whole('from_ticks'), $op->whole('to_ticks')),
                'angled' => new Angled($op->whole('from_ticks'), $op->whole('to_ticks')),
                'restore' => new Restore(self::changes($op), self::heads($op)),
                default => throw InvalidOperation::because($index, 'there is no such operation'),
            };
        } catch (InvalidSequence $broken) {
            // A well-formed item that no cut can hold is refused; what is no item at all is bad use.
            if ($broken->isOfRange) {
                throw Refused::because($broken->getMessage());
            }
            throw InvalidOperation::because($index, $broken->getMessage());
        }
    }

    /** @return TrackKind|null null for picture and sound */
    private static function takes(int $index, SequenceReader $op): ?TrackKind
    {
        $takes = $op->text('takes');

        return $takes === 'both'
            ? null
            : TrackKind::tryFrom($takes) ?? throw InvalidOperation::because($index, 'it takes neither picture, sound nor both');
    }

    private static function on(int $index, SequenceReader $op): bool
    {
        return $op->has('on') ? $op->flag('on', true) : throw InvalidOperation::because($index, 'it does not say on or off');
    }

    /** @return non-empty-list<array{track: int, item: \Cartella\Core\Cutting\Item}> */
    private static function items(SequenceReader $op): array
    {
        $items = array_map(
            static fn(SequenceReader $one): array => ['track' => $one->whole('track'), 'item' => $one->child('item')->item(0)],
            $op->list('items'),
        );

        return $items === [] ? throw InvalidSequence::field('operation.items', 'is empty') : $items;
    }

    /** @return array<int, array{kind: string, name: string, role?: string, locked: bool, enabled: bool}|null> */
    private static function heads(SequenceReader $op): array
    {
        $heads = [];
        foreach ($op->list('heads') as $one) {
            $head = $one->map('head') === [] ? null : $one->child('head');
            $heads[$one->whole('track')] = $head === null ? null : Sequence::track($head, [])->toHead();
        }

        return $heads;
    }

    /** @return list<array{track: int, index: int, count: int, items: list<\Cartella\Core\Cutting\Item>, shift_ticks: int}> */
    private static function changes(SequenceReader $op): array
    {
        return array_map(
            static fn(SequenceReader $change): array => [
                'track' => $change->whole('track'),
                'index' => max(0, $change->whole('index')),
                'count' => max(0, $change->whole('count')),
                'items' => array_map(
                    static fn(SequenceReader $item) => $item->item($item->whole('record_start_ticks')),
                    $change->list('items'),
                ),
                'shift_ticks' => $change->whole('shift_ticks'),
            ],
            $op->list('tracks'),
        );
    }
}
