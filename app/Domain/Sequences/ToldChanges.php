<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use Cartella\Core\Cutting\Change;
use Cartella\Core\Cutting\ChangeKind;
use Cartella\Core\Cutting\Comparison;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/** What became of a cut, each difference in words and with its place. */
final class ToldChanges
{
    /** @return array{same: int, changes: list<array<string, mixed>>} */
    public static function of(Sequence $was, Sequence $is): array
    {
        $found = new Comparison($was, $is);
        $label = static fn(int $ticks): string => Timecode::label(Ticks::toFrames($is->startTicks + $ticks, $is->rate), $is->rate);

        return [
            'same' => $found->same,
            'changes' => array_map(
                static fn(Change $one): array => [
                    'kind' => $one->kind->value,
                    'name' => $one->is->name ?? ($one->was->name ?? ''),
                    'was_at' => $one->was === null ? null : $label($one->was->recordStartTicks),
                    'is_at' => $one->is === null ? null : $label($one->is->recordStartTicks),
                    'at_ticks' => $one->atTicks(),
                    'clip' => strlen($one->is->source->id ?? '') === 26 ? $one->is?->source->id : null,
                    'words' => self::words($one, $is->rate),
                ],
                $found->changes,
            ),
        ];
    }

    private static function words(Change $change, FrameRate $rate): string
    {
        $frames = static fn(int $ticks): int => (int) round($ticks / $rate->ticksPerFrame());
        $count = static fn(int $n): string => abs($n) === 1 ? '1 frame' : abs($n) . ' frames';
        $length = static fn(?Item $item): string => Timecode::duration($frames($item->durationTicks ?? 0), $rate);
        [$head, $tail] = array_map($frames, $change->edgesTicks($rate->ticksPerFrame()));
        $edges = implode(
            ', ',
            array_filter([
                $head === 0 ? '' : sprintf('begins %s %s', $count($head), $head > 0 ? 'earlier' : 'later'),
                $tail === 0 ? '' : sprintf('ends %s %s', $count($tail), $tail > 0 ? 'later' : 'earlier'),
            ]),
        );

        return match ($change->kind) {
            ChangeKind::New => 'is new, ' . $length($change->is),
            ChangeKind::Gone => 'is gone, ' . $length($change->was),
            ChangeKind::Moved => 'stands elsewhere',
            ChangeKind::Slipped => 'shows another part of it: ' . ($edges === '' ? 'by less than a frame' : $edges),
            ChangeKind::Speed => 'runs at another speed',
            ChangeKind::Longer, ChangeKind::Shorter => $change->kind->value . ': ' . ($edges === '' ? 'by less than a frame' : $edges),
        };
    }
}
