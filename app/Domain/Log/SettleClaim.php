<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Slate\SlateOrder;
use Illuminate\Support\Facades\DB;

/** Decides a disagreement about a take's number: the one it has, or the one that another source says. */
final class SettleClaim
{
    /** @throws Problem if no source says that number */
    public function __invoke(Take $take, User $user, string $setup, int $number): Take
    {
        $said = array_filter($take->claims ?? [], static fn (array $claim): bool => $claim['setup'] === $setup && $claim['take'] === $number);
        if ($said === []) {
            throw Problem::refused('claim.unknown', 'No source says that number.', 'Type the slate in the log instead.');
        }
        $take = DB::transaction(function () use ($take, $user, $setup, $number): Take {
            $log = new ChangeLog();
            $clips = Clip::query()->where('take_id', $take->id)->get();
            $target = $take;
            if ($take->setup !== $setup || $take->take !== $number) {
                $there = Take::query()->where('shoot_day_id', $take->shoot_day_id)->where('setup', $setup)->where('take', $number)->first();
                if ($there !== null) {
                    $target = $there;
                } else {
                    $take->fill(['setup' => $setup, 'take' => $number, 'sort_key' => SlateOrder::key($setup, $number)]);
                }
            }
            foreach ($clips as $clip) {
                $clip->take_id = $target->id;
                $clip->slate_from = 'person';
                $log->save($clip);
            }
            $target->settled = ['setup' => $setup, 'take' => $number];
            $target->claims ??= $take->claims;
            $log->save($target);
            $log->finish($take->production, $user, sprintf('It is %s', $target->label()));

            return $target;
        });
        Live::tell($take->production_id, 'takes', ['take' => $take->ulid]);

        return $take;
    }
}
