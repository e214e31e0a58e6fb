<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\ClaimedSlate;
use App\Domain\Footage\FindTake;
use App\Domain\Footage\TakeParts;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Cartella\Core\Slate\SlateReader;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Reads scene, setup and take of every clip of a day from iXML, names and folders, one undoable step. What a person has
 * set, and what line-up has decided, stays as it is.
 */
final class ReadSlates
{
    public function __construct(private readonly FindTake $find) {}

    /**
     * What would be read, by the production's patterns or by others that somebody tries.
     *
     * @return list<array{clip: string, name: string, device: string|null, slate: string|null, from: string|null, pattern: string|null,
     *     has: string|null, is_new: bool}>
     */
    public function preview(ShootDay $day, ?SlateReader $reader = null): array
    {
        $reader ??= $day->production->slateReader();

        return $this->clips($day)
            ->with(['device', 'parts.take'])
            ->get()
            ->map(static function (Clip $clip) use ($reader, $day): array {
                $claim = ClaimedSlate::of($clip, $reader, $day->production->slate_style)[0] ?? null;

                return [
                    'clip' => $clip->ulid,
                    'name' => $clip->name,
                    'device' => $clip->device?->letter,
                    'slate' => $claim?->slate->label(),
                    'from' => $claim?->from,
                    'pattern' => $claim?->pattern,
                    'has' => $clip->slates(),
                    'is_new' => $clip->parts->isEmpty() && $claim !== null,
                ];
            })
            ->all();
    }

    /** @return array{read: int, from_recorder: int, from_names: int, silent: int, takes: int} */
    public function __invoke(ShootDay $day, User $user): array
    {
        $reader = $day->production->slateReader();
        $count = ['read' => 0, 'from_recorder' => 0, 'from_names' => 0, 'silent' => 0, 'takes' => 0];
        DB::transaction(function () use ($day, $user, $reader, &$count): void {
            $log = new ChangeLog();
            /** @var Collection<int, Clip> $clips */
            $clips = $this->clips($day)->with('parts')->lockForUpdate()->get();
            foreach ($clips as $clip) {
                $claim = ClaimedSlate::of($clip, $reader, $day->production->slate_style)[0] ?? null;
                if ($claim === null) {
                    $count['silent'] += (int) $clip->parts->isEmpty();

                    continue;
                }
                if ($clip->parts->isNotEmpty()) {
                    continue;
                }
                $take = ($this->find)($day, $claim->slate, $log);
                TakeParts::whole($clip, $take, $claim->from, $log);
                FindTake::recorderMarks($take, $clip, $log);
                $count['read']++;
                $count[$claim->from === 'ixml' ? 'from_recorder' : 'from_names']++;
            }
            $log->finish($day->production, $user, sprintf('Read %d slates', $count['read']));
            $count['takes'] = $day->takes()->count();
        });
        Live::tell($day->production_id, Topic::Takes);

        return $count;
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Clip> recorders first, so that a take begins with what they say */
    private function clips(ShootDay $day)
    {
        return Clip::shotOn($day->id)->orderBy('kind', 'desc')->orderBy('id');
    }
}
