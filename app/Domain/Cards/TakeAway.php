<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Undo\ChangeLog;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * Takes a card or some clips out of the footage, when the person has seen what depends on them. Nothing is deleted: what points at
 * them still does, copies stay where they are, and all of it is there again when the media come back or the step is taken back.
 */
final class TakeAway
{
    /**
     * What depends on some clips.
     *
     * @param  list<int>  $clips  ids
     * @return array{clips: int, takes: int, subclips: int, markers: int, marks: int, notes: int, placed: int, bins: list<string>,
     *     sequences: list<array{name: string, times: int}>, total: int}
     */
    public static function dependents(array $clips): array
    {
        $of = static fn(string $table): Builder => DB::table($table)->whereIntegerInRaw("$table.clip_id", $clips);
        $subclips = $of('subclips')->pluck('id')->all();
        $takes = $of('take_parts')->distinct()->pluck('take_id')->all();
        $bins = DB::table('bin_items')
            ->join('bins', 'bins.id', '=', 'bin_items.bin_id')
            ->where(
                static fn($items) => $items
                    ->whereIntegerInRaw('bin_items.clip_id', $clips)
                    ->orWhereIntegerInRaw('bin_items.subclip_id', $subclips)
                    ->orWhereIntegerInRaw('bin_items.take_id', $takes),
            )
            ->distinct()
            ->orderBy('bins.name')
            ->pluck('bins.name')
            ->map(strval(...))
            ->values()
            ->all();
        $sequences = $of('sequence_uses')
            ->join('sequences', 'sequences.id', '=', 'sequence_uses.sequence_id')
            ->whereNull('sequences.removed_at')
            ->groupBy('sequences.id', 'sequences.name')
            ->orderBy('sequences.name')
            ->selectRaw('sequences.name, SUM(sequence_uses.times) AS times')
            ->get()
            ->map(static fn(object $one): array => ['name' => $one->name, 'times' => (int) $one->times])
            ->all();
        $found = [
            'clips' => count($clips),
            'takes' => count($takes),
            'subclips' => count($subclips),
            'markers' => $of('markers')->where('kind', 'person')->count(),
            'marks' => $of('clip_marks')->count(),
            'notes' => $of('screening_notes')->count(),
            'placed' => $of('placements')->whereNotNull('start_ticks')->count(),
            'bins' => $bins,
            'sequences' => $sequences,
        ];
        $counts = [...array_values(array_filter($found, is_int(...))), count($bins), array_sum(array_column($sequences, 'times'))];

        return $found + ['total' => array_sum($counts) - $found['clips']];
    }

    /**
     * @param  int  $seen  how much depends on it, as the person saw
     * @return int clips that went
     *
     * @throws Problem if it is at work, or more depends on it now
     */
    public function card(Production $production, User $user, Card $card, int $seen): int
    {
        return $this->step($production, $user, $seen, $card->roll, static function () use ($card): array {
            $locked = Card::query()->lockForUpdate()->findOrFail($card->id);
            $isBusy = DB::table('tasks')
                ->where('alone', "copies.$card->id")
                ->whereNull('ended_at')
                ->exists();
            if ($locked->state === 'copying' || $isBusy) {
                throw Problem::refused('card.busy', "$card->roll is being worked on.", 'Wait until it is done, or stop it.');
            }

            return [$locked, $locked->clips()->whereNull('clips.away_at')->lockForUpdate()->get()];
        });
    }

    /**
     * @param  list<string>  $clips  ULIDs
     *
     * @throws Problem as for a card, or if one is not here
     */
    public function clips(Production $production, User $user, array $clips, int $seen): int
    {
        $label = count($clips) === 1 ? 'a clip' : count($clips) . ' clips';

        return $this->step($production, $user, $seen, $label, static fn(): array => [null, self::found($production, $clips, true)]);
    }

    /**
     * @param  list<string>  $clips  ULIDs
     * @return Collection<int, Clip>
     *
     * @throws Problem if one is not here
     */
    public static function found(Production $production, array $clips, bool $toChange = false): Collection
    {
        $query = Clip::query()->whereNull('clips.away_at')->where('production_id', $production->id)->whereIn('ulid', $clips);
        $found = $toChange ? $query->lockForUpdate()->get() : $query->get(['id']);
        if ($found->count() !== count(array_unique($clips))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }

        return $found;
    }

    /** The card is here again with the clips that went with it; those that somebody took away by themselves stay away. */
    public function back(Production $production, User $user, Card $card): int
    {
        return DB::transaction(static function () use ($production, $user, $card): int {
            $log = new ChangeLog();
            $locked = Card::query()->lockForUpdate()->findOrFail($card->id);
            if ($locked->away_at === null) {
                return 0;
            }
            $clips = $locked->clips()->where('clips.away_at', $locked->away_at)->lockForUpdate()->get();
            $locked->away_at = null;
            $log->save($locked);
            foreach ($clips as $clip) {
                $clip->away_at = null;
            }
            $log->saveAll($clips->all());
            $log->finish($production, $user, "Bring back $card->roll");
            self::tell($production);

            return $clips->count();
        });
    }

    /** @param  callable(): array{Card|null, Collection<int, Clip>}  $what  locked */
    private function step(Production $production, User $user, int $seen, string $label, callable $what): int
    {
        return DB::transaction(static function () use ($production, $user, $seen, $label, $what): int {
            [$card, $clips] = $what();
            if (self::dependents($clips->modelKeys())['total'] > $seen) {
                throw Problem::conflict('away.more', 'More depends on it by now.', 'Look at it again.');
            }
            $log = new ChangeLog();
            $now = now();
            if ($card !== null) {
                $card->away_at = $now;
                $log->save($card);
            }
            foreach ($clips as $clip) {
                $clip->away_at = $now;
            }
            $log->saveAll($clips->all());
            $log->finish($production, $user, "Take away $label");
            self::tell($production);

            return $clips->count();
        });
    }

    private static function tell(Production $production): void
    {
        foreach ([Topic::Cards, Topic::Clips, Topic::Takes, Topic::Lineup] as $topic) {
            Live::tell($production->id, $topic);
        }
    }
}
