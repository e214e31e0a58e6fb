<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Subclip;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Slate\NamePattern;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/** Names clips, takes or subclips by a pattern: first a preview of every name, then all of them in one undoable step. */
final class GiveNames
{
    public const LIMIT = 2000;

    /**
     * @param  'clips'|'takes'|'subclips'  $what
     * @param  list<string>  $ulids  in the order in which they are counted
     * @return list<array{ulid: string, original: string, was: string, name: string, problems: list<string>}>
     */
    public function preview(Production $production, string $what, array $ulids, string $pattern, int $start = 1, int $step = 1): array
    {
        $models = $this->models($production, $what, $ulids);
        $rows = array_map(fn(Clip|Take|Subclip $model): array => $this->fields($model, $production->fields()), $models);
        $names = NamePattern::parse($pattern, $production->fields())->preview(
            $rows,
            $this->taken($production, $what, $models),
            $start,
            $step,
        );

        return array_map(
            static fn(Clip|Take|Subclip $model, array $one): array => [
                'ulid' => $model->ulid,
                'original' => self::original($model),
                'was' => self::was($model),
                'name' => $one['name'],
                'problems' => $one['problems'],
            ],
            $models,
            $names,
        );
    }

    /**
     * @param  'clips'|'takes'|'subclips'  $what
     * @param  list<string>  $ulids
     * @return int how many have another name now
     *
     * @throws Problem if any of the names cannot be
     */
    public function __invoke(
        Production $production,
        User $user,
        string $what,
        array $ulids,
        string $pattern,
        int $start = 1,
        int $step = 1,
    ): int {
        $changed = DB::transaction(function () use ($production, $user, $what, $ulids, $pattern, $start, $step): int {
            $names = $this->preview($production, $what, $ulids, $pattern, $start, $step);
            $bad = array_values(array_filter($names, static fn(array $one): bool => $one['problems'] !== []));
            if ($bad !== []) {
                throw Problem::refused(
                    'names.problems',
                    sprintf(
                        '%d of %d names cannot be given: %s, %s.',
                        count($bad),
                        count($names),
                        $bad[0]['original'],
                        $bad[0]['problems'][0],
                    ),
                    'Change the pattern, or take those out of the selection.',
                );
            }
            $log = new ChangeLog();
            $changed = $this->give($this->models($production, $what, $ulids), $names, $log);
            $log->finish($production, $user, sprintf('Name %d %s', $changed, $changed === 1 ? rtrim($what, 's') : $what));

            return $changed;
        });
        Live::tell($production->id, Topic::Takes);

        return $changed;
    }

    /**
     * Names clips within a larger step; one whose name cannot be keeps the one it has.
     *
     * @param  list<string>  $ulids
     */
    public function into(ChangeLog $log, Production $production, array $ulids, string $pattern): int
    {
        return $this->give($this->models($production, 'clips', $ulids), $this->preview($production, 'clips', $ulids, $pattern), $log);
    }

    /**
     * @param  list<Clip|Take|Subclip>  $models
     * @param  list<array{name: string, problems: list<string>}>  $names
     */
    private function give(array $models, array $names, ChangeLog $log): int
    {
        $changed = 0;
        foreach ($models as $at => $model) {
            if ($names[$at]['problems'] !== []) {
                continue;
            }
            $name = $names[$at]['name'];
            // A clip that has its file's name again has no other.
            $model instanceof Clip ? ($model->label = $name === $model->name ? null : $name) : ($model->name = $name);
            $changed += (int) $model->isDirty();
            $log->save($model);
        }

        return $changed;
    }

    /**
     * @param  list<string>  $ulids
     * @return list<Clip|Take|Subclip>
     */
    private function models(Production $production, string $what, array $ulids): array
    {
        /** @var Collection<int, Clip|Take|Subclip> $models */
        $models = match ($what) {
            'clips' => Clip::query()
                ->with(['take', 'device', 'card', 'day'])
                ->where('production_id', $production->id)
                ->whereIn('ulid', $ulids)
                ->get(),
            'takes' => Take::query()->with('day')->where('production_id', $production->id)->whereIn('ulid', $ulids)->get(),
            // Those of takes are meant where takes are named.
            'subclips' => Subclip::query()
                ->with(['clip.take', 'clip.device', 'clip.card', 'clip.day'])
                ->whereHas('clip', static fn($clip) => $clip->where('production_id', $production->id))
                ->where(
                    static fn($query) => $query
                        ->whereIn('ulid', $ulids)
                        ->orWhereHas('clip.take', static fn($take) => $take->whereIn('ulid', $ulids)),
                )
                ->orderBy('clip_id')
                ->orderBy('in_ticks')
                ->get(),
            default => throw new \LogicException("Nothing is called $what"),
        };
        $byUlid = $models->keyBy('ulid');
        if ($what === 'subclips') {
            return $models->values()->all();
        }

        return array_map(
            static fn(string $ulid): Clip|Take|Subclip => $byUlid[$ulid] ?? throw Problem::missing('One of those', 'Load the page again.'),
            array_values(array_unique($ulids)),
        );
    }

    /** @return array<string, string|int|null> by what patterns call them */
    private function fields(Clip|Take|Subclip $model, TakeFields $known): array
    {
        $clip = $model instanceof Clip ? $model : ($model instanceof Subclip ? $model->clip : null);
        $take = $model instanceof Take ? $model : $clip?->take;
        $day = $model instanceof Take ? $model->day : $clip?->day;
        $values = [];
        foreach ($take === null ? [] : $known->byName() as $name => $field) {
            $values[$name] = $field->text($take->valueOf($field->key));
        }

        return [
            'take' => $take === null ? null : $take->take . $take->part,
            'device' => $clip?->device?->letter,
            'roll' => $clip?->card?->roll,
            'day' => $day?->number,
            'date' => $day?->date->format('Y-m-d'),
            'original' => self::original($model),
        ] + $values;
    }

    private static function original(Clip|Take|Subclip $model): string
    {
        return $model instanceof Take ? str_replace('/', '-', $model->label()) : $model->name;
    }

    private static function was(Clip|Take|Subclip $model): string
    {
        return $model instanceof Clip ? $model->title() : $model->name;
    }

    /**
     * Names in use beside the selection: of the same devices' clips on the same days, of the day's takes, of the same clip.
     *
     * @param  list<Clip|Take|Subclip>  $models
     * @return list<string>
     */
    private function taken(Production $production, string $what, array $models): array
    {
        $ids = array_map(static fn(Clip|Take|Subclip $model): int => $model->id, $models);

        return match ($what) {
            'clips' => Clip::query()
                ->where('production_id', $production->id)
                ->whereNotIn('id', $ids)
                ->whereIn('shoot_day_id', array_unique(array_map(static fn($clip): int => $clip->shoot_day_id, $models)))
                ->selectRaw('COALESCE(label, name) AS title')
                ->pluck('title')
                ->all(),
            'takes' => Take::query()
                ->where('production_id', $production->id)
                ->whereNotIn('id', $ids)
                ->where('name', '!=', '')
                ->pluck('name')
                ->all(),
            default => Subclip::query()
                ->whereIn('clip_id', array_unique(array_map(static fn($subclip): int => $subclip->clip_id, $models)))
                ->whereNotIn('id', $ids)
                ->pluck('name')
                ->all(),
        };
    }
}
