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

    /** Clips of one kind that ran at one moment; a day has a handful of devices. */
    private const AT_ONCE = 64;

    /** @var array<string, list<Clip>> placed ones by kind, in the order in which they began */
    private array $byKind = [];

    /** @var array<string, int> the longest of each kind, ticks: none that began earlier than that before a moment still ran */
    private array $longest = [];

    /** @param  Collection<int, Clip>  $clips with their placements, of one day */
    public function __construct(Collection $clips)
    {
        foreach (
            $clips->filter(static fn(Clip $clip): bool => $clip->placement?->start_ticks !== null)->sortBy('placement.start_ticks')
            as $clip
        ) {
            $this->byKind[$clip->kind][] = $clip;
            $this->longest[$clip->kind] = max($this->longest[$clip->kind] ?? 0, (int) $clip->duration_ticks);
        }
    }

    /**
     * Of all clips of its day that ran beside one that has a place, the one that overlaps the longest; recordings first.
     *
     * @param  'sound'|'picture'|null  $kind
     */
    public static function companion(Clip $clip, ?string $kind = null): ?Clip
    {
        $place = $clip->placement;
        if ($place?->start_ticks === null) {
            return null;
        }
        $windows = self::beside($clip);

        return $kind === null ? $windows->partner($clip, 'sound') ?? $windows->partner($clip, 'picture') : $windows->partner($clip, $kind);
    }

    /** The few clips of other devices that ran while a clip did: the database finds them, of the thousands of a day. */
    public static function beside(Clip $clip): self
    {
        $place = $clip->placement;
        if ($place?->start_ticks === null) {
            return new self(new Collection());
        }

        return new self(
            Scope::clips($clip->day)
                ->with(['placement', 'device'])
                ->where('clips.device_id', '!=', $clip->device_id)
                ->whereHas(
                    'placement',
                    static fn($other) => $other
                        ->where('group', $place->group)
                        ->where('start_ticks', '<', $place->start_ticks + $clip->duration_ticks)
                        ->whereRaw('start_ticks + clips.duration_ticks > ?', [$place->start_ticks]),
                )
                ->limit(self::AT_ONCE)
                ->get(),
        );
    }

    /** Whether a recording ran with a picture, by the line-up. */
    public static function hasSound(Clip $clip): bool
    {
        return $clip->isPicture() && self::companion($clip, 'sound') !== null;
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
        if ($clip->placement?->start_ticks === null) {
            return [];
        }
        $all = $this->byKind[$kind] ?? [];
        $end = $clip->placement->start_ticks + $clip->duration_ticks;
        $found = [];
        for (
            $at = $this->firstAfter($all, $clip->placement->start_ticks - ($this->longest[$kind] ?? 0)), $count = count($all);
            $at < $count && $all[$at]->placement->start_ticks < $end;
            $at++
        ) {
            $overlap = $all[$at]->id !== $clip->id ? self::overlap($clip, $all[$at]) : 0;
            if ($overlap > 0 && $overlap >= min(self::LEAST_TICKS, (int) $clip->duration_ticks)) {
                $found[] = [$overlap, $all[$at]];
            }
        }
        usort($found, static fn(array $x, array $y): int => $y[0] <=> $x[0]);

        return array_column($found, 1);
    }

    /** Ticks that both were running; 0 when either has no place, or they share no clock. */
    public static function overlap(Clip $a, Clip $b): int
    {
        $x = $a->placement;
        $y = $b->placement;
        if ($x?->start_ticks === null || $y?->start_ticks === null || $x->group !== $y->group) {
            return 0;
        }

        return max(
            0,
            min($x->start_ticks + $a->duration_ticks, $y->start_ticks + $b->duration_ticks) - max($x->start_ticks, $y->start_ticks),
        );
    }

    /** @param  list<Clip>  $clips  in order */
    private function firstAfter(array $clips, int $ticks): int
    {
        $low = 0;
        $high = count($clips);
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            if ($clips[$middle]->placement->start_ticks < $ticks) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
