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
use Cartella\Core\Slate\Slate;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Gives clips the slate that a person read off the picture or heard; or takes it away. */
final class SetSlate
{
    public function __construct(private readonly FindTake $find) {}

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  string|null  $slate  such as `3B/1`, of all of them; `3B/1+` counts on from clip to clip; null takes the slate away
     * @param  array{slate: string|null}|null  $seen  the slate that the person saw on each; null asks for no comparison
     * @return Take|null that of the first clip
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
        $runs = $slate !== null && preg_match('/\A(.*[^+\s])\s*\+\z/su', trim($slate), $part) === 1;
        $first = $slate === null ? null : self::read($day, $runs ? $part[1] : $slate);
        $slates = [];
        foreach ($clips->values() as $n => $clip) {
            $slates[] = $first === null || !$runs ? $first : $first->later($n);
        }
        $label = match (true) {
            $falseStart => '%s is a false start',
            $first === null => 'Take the slate off %s',
            $runs && $clips->count() > 1 => "%s are {$slates[0]->label()} to {$slates[count($slates) - 1]->label()}",
            default => "%s is {$slates[0]->label()}",
        };

        return $this->set($day, $user, $clips, $slates, array_fill(0, count($slates), $seen), $label, $falseStart);
    }

    /**
     * Gives each clip its own slate, as lines that were pasted: one step.
     *
     * @param  Collection<int, Clip>  $clips
     * @param  list<string|null>  $slates  of each clip
     * @param  list<string|null>|null  $seen  the slate that the person saw on each; null asks for no comparison
     * @return Take|null that of the first clip
     *
     * @throws Problem if one is not a slate, or a clip has found another meanwhile
     */
    public function each(ShootDay $day, User $user, Collection $clips, array $slates, ?array $seen): ?Take
    {
        return $this->set(
            $day,
            $user,
            $clips,
            array_map(
                static fn(?string $slate): ?Slate => $slate === null || trim($slate) === '' ? null : self::read($day, $slate),
                $slates,
            ),
            array_map(
                static fn(?string $one): ?array => $seen === null ? null : ['slate' => $one],
                $seen ?? array_fill(0, count($slates), null),
            ),
            'Slates of %s',
            false,
        );
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  list<Slate|null>  $slates
     * @param  list<array{slate: string|null}|null>  $seen
     * @param  string  $label  of the step, with the clips' names at `%s`
     */
    private function set(ShootDay $day, User $user, Collection $clips, array $slates, array $seen, string $label, bool $falseStart): ?Take
    {
        $first = DB::transaction(function () use ($day, $user, $clips, $slates, $seen, $label, $falseStart): ?Take {
            $log = new ChangeLog();
            $takes = [];
            $first = null;
            foreach ($clips->values() as $n => $clip) {
                self::refuseOther($clip, $seen[$n] ?? null);
                $slate = $slates[$n] ?? null;
                $take = $slate === null ? null : ($takes[$slate->label()] ??= ($this->find)($day, $slate, $log));
                self::join(collect([$clip]), $take, $log, $falseStart, $seen[$n]['slate'] ?? null);
                $first ??= $take;
            }
            $names = $clips->count() === 1 ? $clips->first()->title() : $clips->count() . ' clips';
            $log->finish($day->production, $user, sprintf(str_replace(' is ', $clips->count() === 1 ? ' is ' : ' are ', $label), $names));

            return $first;
        });
        Live::tell($day->production_id, Topic::Takes);

        return $first;
    }

    /** @throws Problem if the text is not a slate */
    private static function read(ShootDay $day, string $text): Slate
    {
        $line = LogLine::parse($text, $day->production->slate_style);

        return $line->slate === null || !$line->namesSlate || $line->fields !== []
            ? throw Problem::refused(
                'slate.unreadable',
                $line->problems[0] ?? sprintf('"%s" is not a slate.', mb_substr($text, 0, 40)),
                'Write setup and take, such as 3B/1.',
            )
            : $line->slate;
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
