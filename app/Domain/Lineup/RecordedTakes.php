<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Clip;
use Cartella\Core\Slate\Slate;

/** The takes that a recording ran over, told by the pictures beside it: several where these say different slates. */
final class RecordedTakes
{
    /** @var array<int, list<array{slate: Slate, from: int, to: int}>> by the recording's id */
    private array $known = [];

    /** @param  \Closure(Clip): ?Slate  $slateOf  what a picture says by itself or a person said of it; null where nothing does */
    public function __construct(private readonly Windows $windows, private readonly \Closure $slateOf) {}

    /** @return list<array{slate: Slate, from: int, to: int}> in order; ticks from the recording's first sample */
    public function under(Clip $sound): array
    {
        return $this->known[$sound->id] ??= $this->find($sound);
    }

    /** Whether a recording belongs to several takes, so that what it says of itself is said of no one of them. */
    public function isShared(Clip $sound): bool
    {
        return count($this->under($sound)) > 1;
    }

    /** Of a recording over several takes the one that a picture without a slate ran with the longest. */
    public function longest(Clip $picture, Clip $sound): ?Slate
    {
        $best = null;
        $most = 0;
        $at = $picture->placement->start_ticks - $sound->placement->start_ticks;
        foreach ($this->under($sound) as $take) {
            $both = min($take['to'], $at + (int) $picture->duration_ticks) - max($take['from'], $at);
            if ($both > $most) {
                [$most, $best] = [$both, $take['slate']];
            }
        }

        return $best;
    }

    /** @return list<array{slate: Slate, from: int, to: int}> */
    private function find(Clip $sound): array
    {
        $takes = [];
        foreach ($this->windows->partners($sound, 'picture') as $picture) {
            $slate = ($this->slateOf)($picture);
            if ($slate === null) {
                continue;
            }
            $at = $picture->placement->start_ticks - $sound->placement->start_ticks;
            $from = max(0, $at);
            $to = min((int) $sound->duration_ticks, $at + (int) $picture->duration_ticks);
            // A picture that ran mostly before or after the recording says little of what was recorded.
            if (2 * ($to - $from) < (int) $picture->duration_ticks) {
                continue;
            }
            $key = $slate->label();
            $takes[$key] = [
                'slate' => $slate,
                'from' => min($takes[$key]['from'] ?? $from, $from),
                'to' => max($takes[$key]['to'] ?? $to, $to),
            ];
        }
        // Takes follow each other; a name that another camera contradicts at the same moment is a dispute, and no take more.
        uasort($takes, static fn(array $x, array $y): int => $y['to'] - $y['from'] <=> $x['to'] - $x['from']);
        $kept = [];
        foreach ($takes as $take) {
            $inside = 0;
            foreach ($kept as $other) {
                $inside += max(0, min($take['to'], $other['to']) - max($take['from'], $other['from']));
            }
            if (2 * $inside < $take['to'] - $take['from']) {
                $kept[] = $take;
            }
        }
        usort($kept, static fn(array $x, array $y): int => $x['from'] <=> $y['from']);

        return $kept;
    }
}
