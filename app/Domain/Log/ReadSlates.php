<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use Illuminate\Support\Facades\DB;

/**
 * Reads scene, setup and take of every clip of a day from iXML and names, one undoable step. What a person has set, and
 * what line-up has decided, stays as it is.
 */
final class ReadSlates
{
    public function __construct(private readonly FindTake $find)
    {
    }

    /** @return array{read: int, from_recorder: int, from_names: int, silent: int, takes: int} */
    public function __invoke(ShootDay $day, User $user): array
    {
        $style = $day->production->slate_style;
        $count = ['read' => 0, 'from_recorder' => 0, 'from_names' => 0, 'silent' => 0, 'takes' => 0];
        DB::transaction(function () use ($day, $user, $style, &$count): void {
            $log = new ChangeLog();
            $clips = Clip::query()->where('shoot_day_id', $day->id)->whereIn('kind', ['picture', 'sound'])->whereNull('import_kind')->orderBy('kind', 'desc')->orderBy('id')->lockForUpdate()->get();
            foreach ($clips as $clip) {
                $claim = ClaimedSlate::of($clip, $style)[0] ?? null;
                if ($claim === null) {
                    $count['silent'] += (int) ($clip->take_id === null);

                    continue;
                }
                if ($clip->take_id !== null) {
                    continue;
                }
                $take = ($this->find)($day, $claim->slate, $log);
                $clip->take_id = $take->id;
                $clip->slate_from = $claim->from;
                $log->save($clip);
                FindTake::recorderMarks($take, $clip, $log);
                $count['read']++;
                $count[$claim->from === 'ixml' ? 'from_recorder' : 'from_names']++;
            }
            $log->finish($day->production, $user, sprintf('Read %d slates', $count['read']));
            $count['takes'] = $day->takes()->count();
        });
        Live::tell($day->production_id, 'takes');

        return $count;
    }
}
