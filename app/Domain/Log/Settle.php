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
     * @param  string  $source  whose value is right; `now` keeps what stands there
     * @param  bool  $alike  for every take of the day on which this source differs in this field
     * @return int takes settled
     *
     * @throws Problem where nothing of the kind is open
     */
    public function __invoke(ShootDay $day, User $user, Take $take, string $field, string $source, bool $alike): int
    {
        $count = DB::transaction(function () use ($day, $user, $take, $field, $source, $alike): int {
            $takes = Take::query()
                ->with('saidFacts')
                ->where('shoot_day_id', $day->id)
                ->when(!$alike, static fn($query) => $query->whereKey($take->id))
                ->lockForUpdate()
                ->get()
                ->each(static fn(Take $one) => $one->setRelation('production', $day->production));
            $against = $source === 'now' ? $this->against($take, $field) : $source;
            $log = new ChangeLog();
            $count = 0;
            foreach ($takes as $one) {
                $count +=
                    (int) ($field === 'slate'
                        ? $this->slate($one, $source, $against, $log)
                        : $this->field($one, $field, $source, $against, $log));
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

    /** Who differs from what stands there; for all alike, the same one is meant everywhere. */
    private function against(Take $take, string $field): ?string
    {
        foreach (TakeFacts::disputes($take) as $dispute) {
            if ($dispute['field'] === $field) {
                return $dispute['said'][0]['source'];
            }
        }

        return null;
    }

    private function field(Take $take, string $field, string $source, ?string $against, ChangeLog $log): bool
    {
        foreach (TakeFacts::disputes($take) as $dispute) {
            if ($dispute['field'] !== $field) {
                continue;
            }
            foreach ($dispute['said'] as $said) {
                if ($said['source'] === $against) {
                    EditTake::fill($take, [$field => $source === 'now' ? $take->valueOf($field) : $said['value']]);
                    $log->save($take);

                    return true;
                }
            }
        }

        return false;
    }

    private function slate(Take $take, string $source, ?string $against, ChangeLog $log): bool
    {
        $claims = $take->claims ?? [];
        if ($take->settled !== null || count(array_unique(array_map(ClaimedSlate::label(...), $claims))) < 2) {
            return false;
        }
        foreach ($claims as $claim) {
            if ($source === 'now' ? ClaimedSlate::label($claim) === $take->label() : $claim['from'] === $against) {
                SettleClaim::settle($take, $claim, $log);

                return true;
            }
        }

        return false;
    }
}
