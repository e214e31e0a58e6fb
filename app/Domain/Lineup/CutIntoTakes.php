<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\FindTake;
use App\Domain\Footage\GiveNames;
use App\Domain\Footage\TakeParts;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ScreeningNote;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\TakeFact;
use App\Models\TakePart;
use App\Models\TakeRating;
use App\Models\User;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Illuminate\Database\Eloquent\Builder;
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
        $recorded = $this->recorded($day, $windows);
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
            $choice = $this->decide($day, $clip, $windows, $recorded);
            $was = $clip->slates();
            $row = [
                'clip' => $clip->ulid,
                'name' => $clip->title(),
                'device' => $clip->device?->letter,
                'kind' => $clip->kind,
                'was' => $was,
            ];
            if ($choice->parts !== [] && !$clip->isSaidByPerson() && $choice->label() !== $was) {
                $sound = $clip->isPicture() ? $windows->partner($clip, 'sound') : null;
                $rows[] = $row + [
                    'what' => 'take',
                    'now' => $choice->label(),
                    'is_new' => array_filter($choice->labels(), static fn(string $label): bool => !$known->has($label)) !== [],
                    'why' => match (true) {
                        $choice->isSplit() => sprintf('it ran over %d takes that cameras name', count($choice->parts)),
                        $choice->from === 'ixml' => 'the recorder says so',
                        $choice->from === 'name' => 'its name says so',
                        $sound !== null => 'it ran with ' . $sound->title(),
                        default => 'it ran with another camera of that take',
                    },
                ];
            }
            $mark = $alone->of($clip, $choice->parts !== []);
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
            $split = 0;
            $claimsByTake = [];
            $ticked = array_flip($chosen ?? []);
            $is = static fn(Clip $clip, string $what): bool => isset($ticked["$clip->ulid:$what"]);
            $alone = new AloneClips($clips, $windows);
            $recorded = $this->recorded($day, $windows);
            // Before anything changes: what the list has shown is what is applied.
            $choices = $clips->mapWithKeys(fn(Clip $clip): array => [$clip->id => $this->decide($day, $clip, $windows, $recorded)])->all();
            $marks =
                $chosen === null
                    ? []
                    : $clips
                        ->mapWithKeys(static fn(Clip $clip): array => [$clip->id => $alone->of($clip, $choices[$clip->id]->parts !== [])])
                        ->all();
            foreach ($clips->sortBy(static fn(Clip $clip): bool => $clip->isPicture()) as $clip) {
                /** @var Clip $clip */
                $choice = $choices[$clip->id];
                if ($choice->parts === [] || ($chosen !== null && !$is($clip, 'take') && $choice->label() !== $clip->slates())) {
                    continue;
                }
                $parts = array_map(
                    fn(array $part): array => [
                        'take' => ($this->find)($day, $part['slate'], $log),
                        'in' => $part['from'],
                        'out' => $part['to'],
                    ],
                    $choice->parts,
                );
                $take = $parts[0]['take'];
                foreach ($choice->claims as $claim) {
                    $claimsByTake[$take->id][$claim['from'] . ClaimedSlate::label($claim)] ??= $claim;
                }
                if ($clip->isSaidByPerson() || !TakeParts::set($clip, $parts, $choice->from, $log)) {
                    continue;
                }
                $split += (int) $choice->isSplit();
                if (!$choice->isSplit()) {
                    $found[$clip->ulid] = $take->id;
                    FindTake::recorderMarks($take, $clip, $log);
                }
            }
            $this->keepClaims($claimsByTake, $log);
            $count = count($found) + $split;
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
                        in_array($clip->take?->id, $found, true),
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
        return Clip::shotOn($day->id)
            ->with(['placement', 'parts.take', 'take', 'device'])
            ->orderBy('id')
            ->get();
    }

    private function recorded(ShootDay $day, Windows $windows): RecordedTakes
    {
        $reader = $this->reader($day);

        return new RecordedTakes(
            $windows,
            static fn(Clip $picture): ?Slate => $picture->isSaidByPerson()
                ? $picture->take?->slate()
                : ClaimedSlate::of($picture, $reader, $day->production->slate_style)[0]->slate ?? null,
        );
    }

    private function reader(ShootDay $day): SlateReader
    {
        return $this->readers[$day->production_id] ??= $day->production->slateReader();
    }

    private function decide(ShootDay $day, Clip $clip, Windows $windows, RecordedTakes $recorded): TakeChoice
    {
        $reader = $this->reader($day);
        $style = $day->production->slate_style;
        $own = ClaimedSlate::of($clip, $reader, $style);
        if ($clip->isSound()) {
            $under = $clip->isSaidByPerson() ? [] : $recorded->under($clip);
            if (count($under) > 1) {
                return new TakeChoice($under, 'lineup');
            }
            if ($own === [] && count($under) === 1) {
                return TakeChoice::whole($under[0]['slate'], 'lineup', []);
            }
        }
        $partner = $clip->isPicture() ? $windows->partner($clip, 'sound') : null;
        if ($partner !== null && !$clip->isSaidByPerson() && $recorded->isShared($partner)) {
            // What the recording says of itself is said of no one of its takes, least of all of a picture with a name of its own.
            $slate = $own[0]->slate ?? $recorded->longest($clip, $partner);

            return $slate === null ? TakeChoice::none() : TakeChoice::whole($slate, $own[0]->from ?? 'lineup', self::said($own));
        }
        $others = $clip->isPicture() && $partner === null ? $windows->partners($clip, 'picture') : [];
        $claims = $own;
        foreach ($partner === null ? $others : [$partner] as $other) {
            array_push($claims, ...ClaimedSlate::of($other, $reader, $style));
        }
        usort($claims, static fn(ClaimedSlate $x, ClaimedSlate $y): int => ($x->from !== 'ixml') <=> ($y->from !== 'ixml'));
        foreach ([$clip, ...$partner === null ? $others : [$partner]] as $decided) {
            if ($decided->isSaidByPerson() && $decided->parts->count() === 1) {
                return TakeChoice::whole($decided->parts->first()->take->slate(), 'lineup', self::said($claims));
            }
        }
        if ($clip->isSaidByPerson() || $claims === []) {
            return TakeChoice::none();
        }

        return TakeChoice::whole(
            $claims[0]->slate,
            $own !== [] && $own[0] === $claims[0] ? $claims[0]->from : 'lineup',
            self::said($claims),
        );
    }

    /**
     * @param  list<ClaimedSlate>  $claims
     * @return list<array{from: string, where: string, setup: string, take: int, part: string}>
     */
    private static function said(array $claims): array
    {
        return array_map(static fn(ClaimedSlate $claim): array => $claim->toArray(), $claims);
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
        $used = TakePart::query()->whereIn('clip_id', $clips->pluck('id'))->distinct()->pluck('take_id');
        $seen = Take::query()
            ->where('shoot_day_id', $day->id)
            ->whereNotIn('id', $used)
            ->where('status', TakeStatus::None->value)
            ->whereNull('own')
            ->whereNull('notes')
            ->where('keywords', '')
            ->pluck('id');
        if ($seen->isEmpty()) {
            return;
        }
        // A cut of a long day takes seconds, and people log meanwhile: it is decided by what stands there now, and nothing is said of
        // these takes until it is.
        $now = Take::query()->whereKey($seen)->lockForUpdate()->get();
        $held = collect([
            TakePart::query(),
            ScreeningNote::query(),
            TakeRating::query(),
            TakeFact::query()->where('source', 'script'),
        ])->flatMap(static fn(Builder $of): Collection => $of->whereIn('take_id', $seen)->sharedLock()->pluck('take_id'));
        $empty = $now->filter(
            static fn(Take $take): bool => $take->status === TakeStatus::None->value &&
                $take->own === null &&
                $take->notes === null &&
                $take->keywords === '' &&
                !$held->contains($take->id) &&
                // What a person has typed of it, or that it is one, is not a machine's reading.
                array_filter($take->set_by ?? [], static fn(array $set): bool => $set['by'] === 'person') === [],
        );
        foreach ($empty as $take) {
            $log->delete($take);
        }
    }
}
