<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\SetSlate;
use App\Domain\Points\OpenPoint;
use App\Domain\Points\PointSource;
use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Placement;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Clock;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Collection;

/** What of the line-up a person has to look at: strays, places that are not sure, clocks that were off all day. */
final class LineupPoints implements PointSource
{
    private FrameRate $rate;

    public function __construct(
        private readonly MovePlacement $move,
        private readonly StateClock $clocks,
        private readonly SetSlate $slate,
    ) {}

    public function of(ShootDay $day): array
    {
        $this->rate = $day->production->rate();

        return [...$this->placements($day), ...$this->clocks($day)];
    }

    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void
    {
        if ($step === 'clock') {
            $this->clocks->apply($day, $day->production->devices()->where('letter', $value)->firstOrFail(), $user, 'day');

            return;
        }
        $clip = Clip::query()
            ->where('ulid', $point->place['clip'] ?? '')
            ->firstOrFail();
        match ($step) {
            'lock' => $this->move->lock($clip, $user, true),
            'false' => ($this->slate)($day, $user, collect([$clip]), null, true),
            default => throw new \LogicException("No step $step"),
        };
    }

    /** @return list<OpenPoint> */
    private function placements(ShootDay $day): array
    {
        $points = [];
        $rows = Placement::query()
            ->with('clip.device')
            ->where('shoot_day_id', $day->id)
            ->whereHas('clip', static fn($clip) => $clip->whereNull('away_at'))
            ->whereNull('left_out_at')
            ->where(static fn($query) => $query->whereNotNull('stray_reason')->orWhere('is_sure', false)->orWhere('group', '>', 0))
            ->get();
        $grouped = $rows->filter(static fn(Placement $row): bool => $row->group > 0 && $row->stray_reason === null);
        foreach ($grouped->groupBy('group') as $number => $own) {
            $points[] = self::loose((int) $number, $own);
        }
        foreach ($rows->diff($grouped) as $row) {
            $place = ['stage' => 'lineup', 'clip' => $row->clip->ulid];
            if ($row->clip->is_false_start) {
                continue;
            }
            $points[] = match (true) {
                $row->stray_reason !== null => new OpenPoint(
                    "stray.{$row->clip->ulid}",
                    'fault',
                    $row->clip->title() . ' is a stray',
                    $row->stray_reason,
                    $place,
                    [['name' => 'false', 'label' => 'Mark false start']],
                    awaits: ['lineup'],
                ),
                default => new OpenPoint(
                    "unsure.{$row->clip->ulid}",
                    'warning',
                    $row->clip->title() . ': look at its place',
                    $this->doubt($row),
                    $place,
                    [['name' => 'lock', 'label' => 'It is right, lock']],
                    awaits: ['lineup'],
                ),
            };
        }

        return $points;
    }

    /**
     * Clips that hang together and on nothing else: one tie brings all of them.
     *
     * @param  Collection<int, Placement>  $own
     */
    private static function loose(int $group, Collection $own): OpenPoint
    {
        $first = $own->sortBy('start_ticks')->firstOrFail();
        $more = count($own) - 1;
        $by = ['timecode' => 'by their timecode', 'date' => 'by their dates'][$first->evidence['laid_by'] ?? ''] ?? 'behind the others';

        return new OpenPoint(
            "group.$group",
            'warning',
            $first->clip->title() .
                ($more === 0 ? ' lies ' . str_replace('their', 'its', $by) : sprintf(' and %d more lie %s', $more, $by)),
            'Nothing ties ' .
                ($more === 0 ? 'it' : 'them') .
                ' to the other recordings of the day. A tie by hand brings all of them along.',
            ['stage' => 'lineup', 'clip' => $first->clip->ulid],
            awaits: ['lineup'],
        );
    }

    private function doubt(Placement $row): string
    {
        $miss = $row->evidence['clock_disagrees_ticks'] ?? null;

        return $miss === null
            ? sprintf('Found by %s, not sure.', $row->way)
            : sprintf(
                'By sound it begins %s %s than by its own timecode, which is right for the camera\'s other clips.',
                Clock::distance($miss, $this->rate),
                $miss > 0 ? 'later' : 'earlier',
            );
    }

    /** @return list<OpenPoint> */
    private function clocks(ShootDay $day): array
    {
        $points = [];
        foreach (ClockOffset::query()->with('device')->where('shoot_day_id', $day->id)->whereNotNull('learned_ticks')->get() as $row) {
            $off = $row->learned_ticks - (int) $row->applied_ticks;
            if ($row->device->isRecorder() || abs($off) < $this->rate->ticksPerFrame()) {
                continue;
            }
            $points[] = new OpenPoint(
                "clock.{$row->device->letter}",
                'warning',
                abs($off) > 3600 * Ticks::PER_SECOND
                    ? "{$row->device->title()}'s clock was not set"
                    : sprintf(
                        "%s's clock is %s %s all day",
                        $row->device->title(),
                        Clock::distance($off, $this->rate),
                        $off > 0 ? 'late' : 'early',
                    ),
                sprintf('Seen on %d clips that sound placed. What was recorded stays as it is.', $row->votes),
                ['stage' => 'lineup'],
                [['name' => "clock:{$row->device->letter}", 'label' => 'Apply to ' . lcfirst($row->device->title())]],
                awaits: ['lineup'],
            );
        }

        return $points;
    }
}
