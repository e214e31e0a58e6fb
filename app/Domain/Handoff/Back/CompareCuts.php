<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Handoff\ExchangeSequence;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Models\StoredSequence;
use Cartella\Core\Cutting\Change;
use Cartella\Core\Cutting\ChangeKind;
use Cartella\Core\Cutting\Comparison;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;
use Illuminate\Support\Collection;

/** What became of a cut that was sent, when it comes back: each difference in words and with its place. */
final class CompareCuts
{
    public function __construct(private readonly SequenceStore $store, private readonly ExchangeSequence $exchange) {}

    /** @return Collection<int, StoredSequence> the cuts with which one can be compared; one of its name first, then the newest */
    public static function with(StoredSequence $stored): Collection
    {
        return StoredSequence::query()
            ->where('production_id', $stored->production_id)
            ->whereKeyNot($stored->id)
            ->whereNull('removed_at')
            ->orderByRaw('name = ? DESC', [$stored->name])
            ->orderByDesc('id')
            ->limit(100)
            ->get();
    }

    /** @return array{same: int, changes: list<array<string, mixed>>} */
    public function of(StoredSequence $before, StoredSequence $after): array
    {
        // A reel is compared as it was sent: with the recordings under it.
        $was = $this->exchange->of(Playlist::of($before, $this->store->read($before)), static fn(): ?string => null);
        $is = $this->store->read($after);
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
        $head = $frames($change->headTicks());
        $tail = $frames($change->tailTicks());
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
