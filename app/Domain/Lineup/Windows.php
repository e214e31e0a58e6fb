<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Clip;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Collection;

/** Which placed clips of a day ran at the same time; overlaps shorter than a second do not count. */
final class Windows
{
    private const LEAST_TICKS = Ticks::PER_SECOND;

    /** @param  Collection<int, Clip>  $clips with their placements, of one day */
    public function __construct(private readonly Collection $clips)
    {
    }

    /**
     * @param  'sound'|'picture'  $kind
     * @return Clip|null the clip of that kind that overlaps the longest
     */
    public function partner(Clip $clip, string $kind): ?Clip
    {
        return $this->partners($clip, $kind)[0] ?? null;
    }

    /**
     * @param  'sound'|'picture'  $kind
     * @return list<Clip> the longest overlap first
     */
    public function partners(Clip $clip, string $kind): array
    {
        $found = [];
        foreach ($this->clips as $other) {
            $overlap = $other->kind === $kind && $other->id !== $clip->id ? self::overlap($clip, $other) : 0;
            if ($overlap >= min(self::LEAST_TICKS, (int) $clip->duration_ticks)) {
                $found[] = [$overlap, $other];
            }
        }
        usort($found, static fn (array $x, array $y): int => $y[0] <=> $x[0]);

        return array_column($found, 1);
    }

    /**
     * Of all clips that ran beside one that has a place, the one that overlaps the longest; recordings first.
     *
     * @param  'sound'|'picture'|null  $kind
     */
    public static function companion(Clip $clip, ?string $kind = null): ?Clip
    {
        $windows = new self(Scope::clips($clip->day)->with(['placement', 'device'])->whereHas('placement', static fn ($place) => $place->whereNotNull('start_ticks'))->where('device_id', '!=', $clip->device_id)->get());

        return $kind === null ? $windows->partner($clip, 'sound') ?? $windows->partner($clip, 'picture') : $windows->partner($clip, $kind);
    }

    /** Ticks that both were running; 0 when either has no place, or they share no clock. */
    public static function overlap(Clip $a, Clip $b): int
    {
        $x = $a->placement;
        $y = $b->placement;
        if ($x?->start_ticks === null || $y?->start_ticks === null || $x->group !== $y->group) {
            return 0;
        }

        return max(0, min($x->start_ticks + $a->duration_ticks, $y->start_ticks + $b->duration_ticks) - max($x->start_ticks, $y->start_ticks));
    }
}
