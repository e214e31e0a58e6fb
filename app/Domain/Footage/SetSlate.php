<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Log\LogLine;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Gives clips the slate that a person read off the picture or heard; or takes it away. */
final class SetSlate
{
    public function __construct(private readonly FindTake $find) {}

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  string|null  $slate  such as `3B/1`; null takes the slate away
     * @param  array{slate: string|null}|null  $seen  the slate that the person saw on each; null asks for no comparison
     *
     * @throws Problem if the text is not a slate, or a clip has found another meanwhile
     */
    public function __invoke(
        ShootDay $day,
        User $user,
        Collection $clips,
        ?string $slate,
        bool $falseStart = false,
        ?array $seen = null,
    ): ?Take {
        $line = $slate === null ? null : LogLine::parse($slate, $day->production->slate_style);
        if ($line !== null && ($line->slate === null || !$line->namesSlate || $line->fields !== [])) {
            throw Problem::refused(
                'slate.unreadable',
                $line->problems[0] ?? sprintf('"%s" is not a slate.', mb_substr((string) $slate, 0, 40)),
                'Write setup and take, such as 3B/1.',
            );
        }
        $take = DB::transaction(function () use ($day, $user, $clips, $line, $falseStart, $seen): ?Take {
            $clips->each(static fn(Clip $clip) => self::refuseOther($clip, $seen));
            $log = new ChangeLog();
            $take = $line?->slate === null ? null : ($this->find)($day, $line->slate, $log);
            self::join($clips, $take, $log, $falseStart, $seen['slate'] ?? null);
            $names = $clips->count() === 1 ? $clips->first()->title() : $clips->count() . ' clips';
            $log->finish(
                $day->production,
                $user,
                match (true) {
                    $falseStart => "$names is a false start",
                    $take === null => "Take the slate off $names",
                    default => "$names is {$take->label()}",
                },
            );

            return $take;
        });
        Live::tell($day->production_id, Topic::Takes);

        return $take;
    }

    /**
     * Locks a clip, and refuses where it has another slate by now than the person saw; of a recording over several takes they
     * may have seen one of them.
     *
     * @param  array{slate: string|null}|null  $seen
     *
     * @throws Problem
     */
    public static function refuseOther(Clip $clip, ?array $seen): void
    {
        $there = Clip::query()->with('parts.take')->lockForUpdate()->findOrFail($clip->id);
        $now = $there->slates();
        if ($seen !== null && $now !== $seen['slate'] && TakeParts::labelled($there, $seen['slate']) === null) {
            throw Problem::editedMeanwhile($clip->title(), [['field' => 'slate', 'yours' => $seen['slate'], 'theirs' => $now]]);
        }
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  string|null  $of  the slate that the person saw: of a recording over several takes only that part changes
     */
    public static function join(Collection $clips, ?Take $take, ChangeLog $log, bool $falseStart = false, ?string $of = null): void
    {
        foreach ($clips as $clip) {
            $part = $falseStart ? null : TakeParts::labelled($clip, $of);
            if ($part !== null) {
                TakeParts::give($part, $take, $log);

                continue;
            }
            TakeParts::whole($clip, $take, 'person', $log);
            $clip->is_false_start = $falseStart;
            $log->save($clip);
            if ($take !== null) {
                FindTake::recorderMarks($take, $clip, $log);
            }
        }
    }
}
