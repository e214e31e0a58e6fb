<?php

declare(strict_types=1);

namespace App\Domain\Day;

use App\Domain\Cards\Readers;
use App\Domain\Footage\TakeLengths;
use App\Domain\Footage\TakeSync;
use App\Domain\Points\OpenPoint;
use App\Domain\Points\OpenPoints;
use App\Domain\Tasks\DayWork;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Placement;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\Task;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Lineup\Gaps;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The day at a glance: counts, who rolled when, open points and what is left before wrap. Ticks and bytes. */
final class DaySheet
{
    public function __construct(
        private readonly OpenPoints $points,
        private readonly Readers $readers,
        private readonly DayWork $work,
        private readonly TakeSync $sync,
    ) {}

    /** @return array<string, mixed> */
    public function of(ShootDay $day): array
    {
        $work = $this->work->of($day);
        $points = $this->points->of($day);
        $cards = Card::query()->with('copies')->where('shoot_day_id', $day->id)->whereNull('away_at')->get();
        $takes = Take::query()
            ->where('shoot_day_id', $day->id)
            ->get(['id', 'scene', 'setup', 'status', 'is_mos', 'is_wild', 'is_guide_only']);
        $counts =
            [
                'cards' => $cards->count(),
                'cards_safe' => $cards->filter(static fn(Card $card): bool => $card->isSafe())->count(),
                'cards_unsafe' => $cards->reject(static fn(Card $card): bool => $card->isSafe())->pluck('roll')->all(),
                'bytes_verified' => (int) $cards->whereNotNull('verified_at')->sum('size_bytes'),
                'takes' => $takes->count(),
                'setups' => $takes->unique('setup')->count(),
                'scenes' => $takes->unique('scene')->count(),
                'circled' => $takes->where('status', TakeStatus::Circled->value)->count(),
                'handed_off' => Handoff::query()
                    ->where('production_id', $day->production_id)
                    ->whereDate('created_at', now()->toDateString())
                    ->count(),
            ] +
            $this->running($day) +
            $this->synced($day, $takes);

        return [
            'counts' => $counts,
            'running' => $work->pluck('title')->all(),
            'rolled' => $this->rolled($day),
            'points' => array_map(static fn(OpenPoint $point): array => $point->toArray(), $points),
            'wrap' => $this->wrap($day, $counts, $points, $work),
        ];
    }

    /** @return array{circled_ticks: int, running_ticks: int} running time of the first camera's circled takes, and of all pictures */
    private function running(ShootDay $day): array
    {
        $perTake = TakeLengths::pictures()
            ->join('takes', 'takes.id', '=', 'take_parts.take_id')
            ->where('takes.shoot_day_id', $day->id)
            ->where('takes.status', TakeStatus::Circled->value)
            ->pluck('longest');

        return [
            'circled_ticks' => (int) $perTake->sum(),
            'running_ticks' => (int) Clip::shotOn($day->id)->where('kind', 'picture')->sum('duration_ticks'),
        ];
    }

    /**
     * @param  Collection<int, Take>  $takes
     * @return array{synced: int, to_sync: int, unsure: int, strays: int}
     */
    private function synced(ShootDay $day, $takes): array
    {
        $wanting = $takes->reject(static fn(Take $take): bool => $take->is_mos || $take->is_wild || $take->is_guide_only)->pluck('id');

        return [
            'to_sync' => $wanting->count(),
            'synced' => count($this->sync->synced($wanting->all())),
            'unsure' => Placement::query()
                ->where('shoot_day_id', $day->id)
                ->whereNotNull('start_ticks')
                ->where('is_sure', false)
                ->whereHas('clip', static fn($clip) => $clip->whereNull('away_at'))
                ->count(),
            // Not what a person took out, nor a camera that was started by mistake.
            'strays' => Placement::query()
                ->where('shoot_day_id', $day->id)
                ->whereNotNull('stray_reason')
                ->whereNull('left_out_at')
                ->whereHas('clip', static fn($clip) => $clip->where('is_false_start', false)->whereNull('away_at'))
                ->count(),
        ];
    }

    /**
     * @return list<array{device: string, kind: string, spans: list<array{0: int, 1: int, 2: string, 3: string|null, 4: bool}>}> start, end,
     *     clip, take, meant to be alone
     */
    private function rolled(ShootDay $day): array
    {
        $rows = DB::table('clips')
            ->join('devices', 'devices.id', '=', 'clips.device_id')
            ->leftJoin('placements', 'placements.clip_id', '=', 'clips.id')
            ->leftJoin('take_parts', 'take_parts.clip_id', '=', 'clips.id')
            ->leftJoin('takes', 'takes.id', '=', 'take_parts.take_id')
            ->where('clips.shoot_day_id', $day->id)
            ->whereNull('clips.away_at')
            ->whereNull('clips.import_kind')
            ->whereNotNull('clips.duration_ticks')
            ->whereRaw('COALESCE(placements.start_ticks, clips.start_ticks) IS NOT NULL')
            ->where(static fn($query) => $query->whereNull('placements.group')->orWhere('placements.group', 0))
            ->orderBy('devices.lane')
            ->orderByRaw('COALESCE(placements.start_ticks, clips.start_ticks)')
            ->orderBy('take_parts.in_ticks')
            ->get([
                'devices.letter',
                'devices.kind',
                'clips.ulid',
                'clips.duration_ticks',
                'takes.setup',
                'takes.take',
                'takes.part',
                'takes.is_mos',
                'clips.is_wild',
                'clips.is_false_start',
                'takes.is_wild as take_is_wild',
                DB::raw('COALESCE(placements.start_ticks, clips.start_ticks) AS at_ticks'),
            ]);
        $lanes = [];
        foreach ($rows as $row) {
            $lanes[$row->letter] ??= ['device' => $row->letter, 'kind' => $row->kind, 'spans' => []];
            $label = $row->setup === null ? null : $row->setup . '/' . $row->take . $row->part;
            if (isset($lanes[$row->letter]['spans'][$row->ulid])) {
                // One recording over several takes is one stretch, named by the first and the last.
                $first = strtok((string) $lanes[$row->letter]['spans'][$row->ulid][3], ' ');
                $lanes[$row->letter]['spans'][$row->ulid][3] = "$first to $label";

                continue;
            }
            $lanes[$row->letter]['spans'][$row->ulid] = [
                (int) $row->at_ticks,
                (int) $row->at_ticks + (int) $row->duration_ticks,
                $row->ulid,
                $label,
                (bool) ($row->is_mos || $row->is_wild || $row->is_false_start || $row->take_is_wild),
            ];
        }
        foreach ($lanes as $letter => $lane) {
            $lanes[$letter]['spans'] = array_values($lane['spans']);
        }
        $holes = Gaps::of(
            array_map(
                static fn(array $lane): array => array_map(static fn(array $span): array => [$span[0], $span[1], $span[4]], $lane['spans']),
                $lanes,
            ),
        );
        foreach ($holes as $letter => $missed) {
            $lanes[$letter]['holes'] = $missed;
        }

        return array_values($lanes);
    }

    /**
     * @param  array<string, mixed>  $counts
     * @param  list<OpenPoint>  $points
     * @param  Collection<int, Task>  $work
     * @return list<array{done: bool, title: string, note: string, stage: string,
     *     is_running: bool}> nothing is done while work runs that could undo it
     */
    private function wrap(ShootDay $day, array $counts, array $points, Collection $work): array
    {
        $runs = static fn(string ...$kinds): bool => $work->whereIn('kind', $kinds)->isNotEmpty();
        $isComingIn = $runs('offload', 'catalogue');
        $isLiningUp = $runs('lineup');
        $known = Card::query()->where('production_id', $day->production_id)->whereNull('away_at')->pluck('volume')->flip();
        $waiting = array_values(
            array_filter(
                $this->readers->volumes($day->production)->pluck('name')->all(),
                static fn(string $name): bool => !$known->has($name),
            ),
        );
        $unslated = count(array_filter($points, static fn(OpenPoint $point): bool => str_starts_with($point->key, 'clip.')));
        $isLinedUp = Placement::query()->where('shoot_day_id', $day->id)->exists();
        $reel = $day
            ->reels()
            ->latest('id')
            ->first(['id', 'name', 'items']);
        // The newest answer counts.
        $handed = Handoff::query()
            ->where('production_id', $day->production_id)
            ->whereNotNull('delivered_at')
            ->latest('number')
            ->get(['id', 'number', 'state', 'chosen', 'summary'])
            ->first(
                static fn(Handoff $handoff): bool => in_array(
                    $day->ulid,
                    [...$handoff->chosen['days'] ?? [], ...$handoff->chosen['since'] ?? false ? $handoff->summary['days'] ?? [] : []],
                    true,
                ),
            );

        $untried = Clip::shotOn($day->id)->where('is_false_start', false)->whereDoesntHave('placement')->count();
        $step = static fn(bool $done, bool $isRunning, string $title, string $stage, string $note): array => [
            'done' => $done && !$isRunning,
            'title' => $title,
            'stage' => $stage,
            'note' => $isRunning ? 'still running' : $note,
            'is_running' => $isRunning,
        ];

        return [
            $step(
                $counts['cards'] > 0 && $counts['cards_safe'] === $counts['cards'] && $waiting === [],
                $isComingIn,
                'Every card offloaded',
                'cards',
                match (true) {
                    $waiting !== [] => sprintf(
                        '%d verified twice; on the bench: %s',
                        $counts['cards_safe'],
                        implode(', ', array_slice($waiting, 0, 4)) . (count($waiting) > 4 ? '…' : ''),
                    ),
                    $counts['cards'] === 0 => 'no card yet',
                    default => sprintf('%d of %d verified twice', $counts['cards_safe'], $counts['cards']),
                },
            ),
            $step(
                $counts['takes'] > 0 && $unslated === 0,
                $isComingIn || $isLiningUp || $runs('notes'),
                'Every clip has a slate',
                'log',
                match (true) {
                    $counts['takes'] === 0 => 'slates not read yet',
                    $unslated === 0 => $counts['takes'] . ' takes',
                    default => $unslated === 1 ? '1 clip has none' : "$unslated clips have none",
                },
            ),
            $step(
                $isLinedUp && $counts['unsure'] === 0 && $counts['strays'] === 0 && $untried === 0,
                $isComingIn || $isLiningUp,
                'Lined up and checked',
                'lineup',
                match (true) {
                    !$isLinedUp => 'not yet',
                    $untried > 0 => sprintf('%d %s not been tried', $untried, $untried === 1 ? 'clip has' : 'clips have'),
                    default => sprintf(
                        '%d to look at, %d %s',
                        $counts['unsure'],
                        $counts['strays'],
                        $counts['strays'] === 1 ? 'stray' : 'strays',
                    ),
                },
            ),
            $step(
                $reel !== null,
                $isComingIn || $isLiningUp,
                'Review reel built',
                'screening',
                $reel === null ? 'not yet' : sprintf('%s, %d takes', $reel->name, $reel->items),
            ),
            $step(
                $handed !== null && $handed->state !== 'queried',
                $runs('handoff'),
                'Handed to the editing team',
                'handoff',
                $handed === null
                    ? 'not yet'
                    : sprintf('No. %d, %s', $handed->number, $handed->state === 'queried' ? 'asked about' : $handed->state),
            ),
        ];
    }
}
