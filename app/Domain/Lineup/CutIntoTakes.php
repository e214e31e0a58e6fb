<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\FindTake;
use App\Domain\Footage\GiveNames;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Gives each picture the take of the sound that ran with it, one undoable step. What a person set wins, then the
 * recorder's fields, then names; where they differ the take keeps what each said, and an open point asks.
 */
final class CutIntoTakes
{
    /** @var array<int, SlateReader> by production */
    private array $readers = [];

    public function __construct(private readonly FindTake $find, private readonly GiveNames $names) {}

    /**
     * What a cut would do to each clip of the day, with the reason; nothing is written.
     *
     * @return list<array{clip: string, name: string, device: string|null, kind: string,
     *     what: 'take'|'false_start'|'wild'|'room_tone'|'mos', was: string|null, now: string|null, is_new: bool, why: string}>
     */
    public function plan(ShootDay $day): array
    {
        $clips = $this->clips($day);
        $windows = new Windows($clips);
        $alone = new AloneClips($clips, $windows);
        $known = Take::query()->where('shoot_day_id', $day->id)->get()->map(static fn(Take $take): string => $take->label())->flip();
        $rows = [];
        foreach (
            $clips->sortBy([
                static fn(Clip $x, Clip $y): int => [$x->placement->start_ticks ?? PHP_INT_MAX, $x->id] <=> [
                    $y->placement->start_ticks ?? PHP_INT_MAX,
                    $y->id,
                ],
            ])
            as $clip
        ) {
            /** @var Clip $clip */
            [$slate, $from] = $this->decide($day, $clip, $windows);
            $was = $clip->take?->label();
            $row = ['clip' => $clip->ulid, 'name' => $clip->name, 'device' => $clip->device?->letter, 'kind' => $clip->kind, 'was' => $was];
            if ($slate !== null && $clip->slate_from !== 'person' && $slate->label() !== $was) {
                $sound = $clip->isPicture() ? $windows->partner($clip, 'sound') : null;
                $rows[] = $row + [
                    'what' => 'take',
                    'now' => $slate->label(),
                    'is_new' => !$known->has($slate->label()),
                    'why' => match (true) {
                        $from === 'ixml' => 'the recorder says so',
                        $from === 'name' => 'its name says so',
                        $sound !== null => 'it ran with ' . $sound->name,
                        default => 'it ran with another camera of that take',
                    },
                ];
            }
            $mark = $alone->of($clip, $slate !== null);
            if ($mark !== null) {
                $rows[] = $row + ['what' => $mark->value, 'now' => null, 'is_new' => false, 'why' => $mark->why()];
            }
        }

        return $rows;
    }

    /**
     * @param  list<string>|null  $chosen  `CLIP:what` of the plan; null takes every slate and marks nothing
     * @param  string|null  $pattern  names the clips of takes that came together here; the production's own where nothing was chosen
     * @return int clips that found or changed their take
     */
    public function __invoke(ShootDay $day, User $user, ?array $chosen = null, ?string $pattern = null): int
    {
        return DB::transaction(function () use ($day, $user, $chosen, $pattern): int {
            $clips = $this->clips($day);
            $log = new ChangeLog();
            $windows = new Windows($clips);
            $pattern ??= $chosen === null ? $day->production->name_patterns[0] ?? null : null;
            $found = [];
            $claimsByTake = [];
            $ticked = array_flip($chosen ?? []);
            $is = static fn(Clip $clip, string $what): bool => isset($ticked["$clip->ulid:$what"]);
            $alone = new AloneClips($clips, $windows);
            // Before anything changes: what the list has shown is what is applied.
            $marks =
                $chosen === null
                    ? []
                    : $clips
                        ->mapWithKeys(
                            fn(Clip $clip): array => [$clip->id => $alone->of($clip, $this->decide($day, $clip, $windows)[0] !== null)],
                        )
                        ->all();
            foreach ($clips->sortBy(static fn(Clip $clip): bool => $clip->isPicture()) as $clip) {
                /** @var Clip $clip */
                [$slate, $from, $claims] = $this->decide($day, $clip, $windows);
                if ($slate === null || ($chosen !== null && !$is($clip, 'take') && $slate->label() !== $clip->take?->label())) {
                    continue;
                }
                $take = ($this->find)($day, $slate, $log);
                foreach ($claims as $claim) {
                    $claimsByTake[$take->id][$claim['from'] . ClaimedSlate::label($claim)] ??= $claim;
                }
                if ($clip->slate_from !== 'person' && $clip->take_id !== $take->id) {
                    $clip->take_id = $take->id;
                    $clip->slate_from = $from;
                    $log->save($clip);
                    $found[$clip->ulid] = $take->id;
                    FindTake::recorderMarks($take, $clip, $log);
                }
                $clip->setRelation('take', $take);
            }
            $this->keepClaims($claimsByTake, $log);
            $count = count($found);
            foreach ($clips as $clip) {
                $mark = $marks[$clip->id] ?? null;
                $count += (int) ($mark !== null && $is($clip, $mark->value) && AloneClips::mark($clip, $mark, $log));
            }
            $this->dropEmpty($day, $clips, $log);
            if ($pattern !== null && $found !== []) {
                // The others of those takes too, unless somebody has named them; a second run finds nothing new and names nothing.
                $beside = $clips->filter(
                    static fn(Clip $clip): bool => $clip->label === null &&
                        $clip->placement?->start_ticks !== null &&
                        in_array($clip->take_id, $found, true),
                );
                $this->names->into(
                    $log,
                    $day->production,
                    array_values(array_unique([...array_keys($found), ...$beside->pluck('ulid')])),
                    $pattern,
                );
            }
            $log->finish($day->production, $user, sprintf('Cut the line-up into takes, %d clips', $count));

            return $count;
        });
    }

    /** @return Collection<int, Clip> */
    private function clips(ShootDay $day): Collection
    {
        return Clip::query()
            ->with(['placement', 'take', 'device'])
            ->where('shoot_day_id', $day->id)
            ->whereIn('kind', ['picture', 'sound'])
            ->whereNull('import_kind')
            ->orderBy('id')
            ->get();
    }

    /** @return array{Slate|null, string, list<array{from: string, where: string, setup: string, take: int, part: string}>} */
    private function decide(ShootDay $day, Clip $clip, Windows $windows): array
    {
        $style = $day->production->slate_style;
        $reader = $this->readers[$day->production_id] ??= $day->production->slateReader();
        $own = ClaimedSlate::of($clip, $reader, $style);
        $partner = $clip->isPicture() ? $windows->partner($clip, 'sound') : null;
        $others = $clip->isPicture() && $partner === null ? $windows->partners($clip, 'picture') : [];
        $claims = $own;
        foreach ($partner === null ? $others : [$partner] as $other) {
            array_push($claims, ...ClaimedSlate::of($other, $reader, $style));
        }
        usort($claims, static fn(ClaimedSlate $x, ClaimedSlate $y): int => ($x->from !== 'ixml') <=> ($y->from !== 'ixml'));
        $said = array_map(static fn(ClaimedSlate $claim): array => $claim->toArray(), $claims);
        foreach ([$clip, ...$partner === null ? $others : [$partner]] as $decided) {
            if ($decided->slate_from === 'person' && $decided->take !== null) {
                return [$decided->take->slate(), 'lineup', $said];
            }
        }
        if ($clip->slate_from === 'person' || $claims === []) {
            return [null, '', []];
        }

        return [$claims[0]->slate, $own !== [] && $own[0] === $claims[0] ? $claims[0]->from : 'lineup', $said];
    }

    /** @param  array<int, array<string, array{from: string, where: string, setup: string, take: int, part: string}>>  $claimsByTake */
    private function keepClaims(array $claimsByTake, ChangeLog $log): void
    {
        foreach (Take::query()->whereKey(array_keys($claimsByTake))->get() as $take) {
            $take->claims = array_values($claimsByTake[$take->id]);
            $log->save($take);
        }
    }

    /**
     * A take that only a machine's reading had made, and that holds nothing any more, is no take.
     *
     * @param  Collection<int, Clip>  $clips
     */
    private function dropEmpty(ShootDay $day, Collection $clips, ChangeLog $log): void
    {
        $used = $clips->pluck('take_id')->filter()->unique();
        $empty = Take::query()
            ->where('shoot_day_id', $day->id)
            ->whereNotIn('id', $used)
            ->where('status', 'none')
            ->whereNull('notes')
            ->where('keywords', '')
            ->whereDoesntHave('screeningNotes')
            ->whereDoesntHave('saidFacts', static fn($facts) => $facts->where('source', 'script'))
            ->get()
            // What a person has typed of it is not a machine's reading.
            ->filter(
                static fn(Take $take): bool => array_filter($take->set_by ?? [], static fn(array $set): bool => $set['by'] === 'person') ===
                    [],
            );
        foreach ($empty as $take) {
            $log->delete($take);
        }
    }
}
