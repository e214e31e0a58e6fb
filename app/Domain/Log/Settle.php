<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\TakeFacts;
use App\Domain\Undo\ChangeLog;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Decides what sources disagree about: a field's value as one of them says it, or as it is now; for one take or for all alike. */
final class Settle
{
    /**
     * @param  string  $field  of the take, or `slate` for its number
     * @param  string  $said  which of what was said is right, by its id; of a number, `ixml` or `name`; `now` keeps what stands there
     * @param  bool  $alike  for every take of the day on which the same source differs in this field
     * @return int takes settled
     *
     * @throws Problem where nothing of the kind is open
     */
    public function __invoke(ShootDay $day, User $user, Take $take, string $field, string $said, bool $alike): int
    {
        $count = DB::transaction(function () use ($day, $user, $take, $field, $said, $alike): int {
            $takes = Take::query()
                ->with('saidFacts')
                ->where('shoot_day_id', $day->id)
                ->when(!$alike, static fn($query) => $query->whereKey($take->id))
                ->lockForUpdate()
                ->get()
                ->each(static fn(Take $one) => $one->setRelation('production', $day->production));
            $against = $field === 'slate' ? null : $this->against($take, $field, $said);
            $log = new ChangeLog();
            $count = 0;
            foreach ($takes as $one) {
                $count +=
                    (int) ($field === 'slate'
                        ? $this->slate($one, $said, $log)
                        : $this->field($one, $field, $said, $one->is($take), $against, $log));
            }
            $log->finish(
                $day->production,
                $user,
                sprintf('Settle %s of %s', strtr($field, ['is_' => '', '_' => ' ']), $count === 1 ? $take->label() : "$count takes"),
            );

            return $count;
        });
        if ($count === 0) {
            throw Problem::refused('settle.none', 'Nothing of the kind is open.', 'It is settled already; load the page again.');
        }
        Live::tell($day->production_id, Topic::Takes);

        return $count;
    }

    /**
     * Who differs from what stands there: a file of notes is meant by itself, a recorder's files and names all together.
     *
     * @return array{source: string, place: string|null}|null
     */
    private function against(Take $take, string $field, string $id): ?array
    {
        foreach (TakeFacts::disputes($take) as $dispute) {
            foreach ($dispute['field'] === $field ? $dispute['said'] : [] as $said) {
                if ($id === 'now' || $said['id'] === $id) {
                    return ['source' => $said['source'], 'place' => $said['source'] === 'script' ? $said['place'] : null];
                }
            }
        }

        return null;
    }

    /**
     * @param  string  $id  of the words that were chosen, or `now`
     * @param  bool  $isChosen  whether they were chosen on this take: of two recorders the one that was meant counts
     * @param  array{source: string, place: string|null}|null  $against
     */
    private function field(Take $take, string $field, string $id, bool $isChosen, ?array $against, ChangeLog $log): bool
    {
        foreach ($against === null ? [] : TakeFacts::disputes($take) as $dispute) {
            foreach ($dispute['field'] === $field ? $dispute['said'] : [] as $said) {
                $isMeant =
                    $isChosen && $id !== 'now'
                        ? $said['id'] === $id
                        : $said['source'] === $against['source'] && ($against['place'] ?? $said['place']) === $said['place'];
                if ($isMeant) {
                    EditTake::fill($take, [$field => $id === 'now' ? $dispute['now'] : $said['value']]);
                    $log->save($take);

                    return true;
                }
            }
        }

        return false;
    }

    private function slate(Take $take, string $from, ChangeLog $log): bool
    {
        $claims = $take->claims ?? [];
        if ($take->settled !== null || count(array_unique(array_map(ClaimedSlate::label(...), $claims))) < 2) {
            return false;
        }
        foreach ($claims as $claim) {
            if ($from === 'now' ? ClaimedSlate::label($claim) === $take->label() : $claim['from'] === $from) {
                SettleClaim::settle($take, $claim, $log);

                return true;
            }
        }

        return false;
    }
}
