<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Log\ChangeLog;
use App\Domain\Log\ClaimedSlate;
use App\Domain\Log\FindTake;
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

    public function __construct(private readonly FindTake $find)
    {
    }

    /** @return int clips that found or changed their take */
    public function __invoke(ShootDay $day, User $user): int
    {
        return DB::transaction(function () use ($day, $user): int {
            $clips = Clip::query()->with(['placement', 'take'])->where('shoot_day_id', $day->id)->whereIn('kind', ['picture', 'sound'])->whereNull('import_kind')->orderBy('id')->get();
            $log = new ChangeLog();
            $windows = new Windows($clips);
            $changed = 0;
            $claimsByTake = [];
            foreach ($clips->sortBy(static fn (Clip $clip): bool => $clip->isPicture()) as $clip) {
                /** @var Clip $clip */
                [$slate, $from, $claims] = $this->decide($day, $clip, $windows);
                if ($slate === null) {
                    continue;
                }
                $take = ($this->find)($day, $slate, $log);
                foreach ($claims as $claim) {
                    $claimsByTake[$take->id][$claim['from'].ClaimedSlate::label($claim)] ??= $claim;
                }
                if ($clip->slate_from !== 'person' && $clip->take_id !== $take->id) {
                    $clip->take_id = $take->id;
                    $clip->slate_from = $from;
                    $log->save($clip);
                    $changed++;
                    FindTake::recorderMarks($take, $clip, $log);
                }
                $clip->setRelation('take', $take);
            }
            $this->keepClaims($claimsByTake, $log);
            $this->dropEmpty($day, $clips, $log);
            $log->finish($day->production, $user, sprintf('Cut the line-up into takes, %d clips', $changed));

            return $changed;
        });
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
        usort($claims, static fn (ClaimedSlate $x, ClaimedSlate $y): int => ($x->from !== 'ixml') <=> ($y->from !== 'ixml'));
        $said = array_map(static fn (ClaimedSlate $claim): array => $claim->toArray(), $claims);
        foreach ([$clip, ...($partner === null ? $others : [$partner])] as $decided) {
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
        $empty = Take::query()->where('shoot_day_id', $day->id)->whereNotIn('id', $used)->where('status', 'none')->whereNull('notes')->where('keywords', '')->whereDoesntHave('takeNotes')->whereDoesntHave('saidFacts', static fn ($facts) => $facts->where('source', 'script'))->get()
            // What a person has typed of it is not a machine's reading.
            ->filter(static fn (Take $take): bool => array_filter($take->set_by ?? [], static fn (array $set): bool => $set['by'] === 'person') === []);
        foreach ($empty as $take) {
            $log->delete($take);
        }
    }
}
