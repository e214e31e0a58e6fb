<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\TakeParts;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Slate\SlateOrder;
use Illuminate\Support\Facades\DB;

/** Decides a disagreement about a take's number: the one it has, or the one that another source says. */
final class SettleClaim
{
    /**
     * @param  string  $slate  as the claims write it, `12A/3`
     *
     * @throws Problem if no source says that number
     */
    public function __invoke(Take $take, User $user, string $slate): Take
    {
        $said =
            array_values(array_filter($take->claims ?? [], static fn(array $claim): bool => ClaimedSlate::label($claim) === $slate))[0] ??
            throw Problem::refused('claim.unknown', 'No source says that number.', 'Type the slate in the log instead.');
        $take = DB::transaction(function () use ($take, $user, $said): Take {
            $log = new ChangeLog();
            $target = self::settle($take, $said, $log);
            $log->finish($take->production, $user, sprintf('It is %s', $target->label()));

            return $target;
        });
        Live::tell($take->production_id, Topic::Takes, ['take' => $take->ulid]);

        return $take;
    }

    /** @param  array{setup: string, take: int, part?: string}  $said */
    public static function settle(Take $take, array $said, ChangeLog $log): Take
    {
        $clips = Clip::query()
            ->whereIn('id', $take->parts()->select('clip_id'))
            ->get();
        $target = $take;
        if ($take->label() !== ClaimedSlate::label($said)) {
            $there = Take::query()
                ->where('shoot_day_id', $take->shoot_day_id)
                ->where('setup', $said['setup'])
                ->where('take', $said['take'])
                ->where('part', $said['part'] ?? '')
                ->first();
            if ($there !== null) {
                $target = $there;
            } else {
                $take->fill([
                    'setup' => $said['setup'],
                    'take' => $said['take'],
                    'part' => $said['part'] ?? '',
                    'sort_key' => SlateOrder::of(
                        $take->production->slate_style,
                        $take->scene,
                        $said['setup'],
                        $said['take'],
                        $said['part'] ?? '',
                    ),
                ]);
            }
        }
        TakeParts::move($take, $target, $log);
        $target->settled = ['setup' => $said['setup'], 'take' => $said['take']];
        $target->claims ??= $take->claims;
        $log->save($target);

        return $target;
    }
}
