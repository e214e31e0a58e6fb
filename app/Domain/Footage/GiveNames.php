<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
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
    /** How many are fetched and written at once; a day of any size is named piece by piece, in one step. */
    private const PIECE = 1000;

    /**
     * Every name, in the order in which they are counted.
     *
     * @param  'clips'|'takes'|'subclips'  $what
     * @param  list<string>  $ulids  in the order in which they are counted
     * @return list<array{ulid: string, original: string, was: string, name: string, problems: list<string>}>
     */
    public function preview(Production $production, string $what, array $ulids, string $pattern, int $start = 1, int $step = 1): array
    {
        $about = $ids = $owners = [];
        $rows = function () use ($production, $what, $ulids, &$about, &$ids, &$owners): \Generator {
            foreach ($this->models($production, $what, $ulids) as $model) {
                $about[] = ['ulid' => $model->ulid, 'original' => self::original($model), 'was' => self::was($model)];
                $ids[$model->id] = true;
                $owners[(int) ($model instanceof Subclip ? $model->clip_id : $model->shoot_day_id)] = true;
                yield $this->fields($model, $production->fields());
            }
        };
        $names = NamePattern::parse($pattern, $production->fields())->preview(
            $rows(),
            fn(): array => $this->taken($production, $what, $ids, array_keys($owners)),
            $start,
            $step,
        );

        return array_map(static fn(array $one, array $name): array => $one + $name, $about, $names);
    }

    /**
     * The clips or takes of a day that names are made for: those of takes, in the order of the slate sheet.
     *
     * @param  'clips'|'takes'|'subclips'  $what  of subclips, those of the day's takes are meant
     * @param  'all'|'picture'|'sound'  $kind  of clips
     * @return list<string> ulids
     */
    public static function ofDay(ShootDay $day, string $what, string $kind = 'all'): array
    {
        $takes = DB::table('takes')->where('takes.shoot_day_id', $day->id)->orderBy('takes.sort_key')->orderBy('takes.id');
        if ($what !== 'clips') {
            return $takes->pluck('takes.ulid')->all();
        }

        return array_values(
            array_unique(
                $takes
                    ->join('take_parts', 'take_parts.take_id', '=', 'takes.id')
                    ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
                    ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
                    ->when($kind !== 'all', static fn($query) => $query->where('clips.kind', $kind))
                    ->orderBy('devices.lane')
                    ->orderBy('clips.start_ticks')
                    ->orderBy('clips.id')
                    ->pluck('clips.ulid')
                    ->all(),
            ),
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
            $log = count($names) > self::PIECE ? ChangeLog::long($production, $user, 'Name', null) : new ChangeLog();
            $changed = $this->give($production, $what, $names, $log, count($names) > self::PIECE);
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
        return $this->give($production, 'clips', $this->preview($production, 'clips', $ulids, $pattern), $log, false);
    }

    /**
     * @param  list<array{ulid: string, name: string, was: string, problems: list<string>}>  $names
     * @param  bool  $flushes  whether the step is a long one, whose rows are written down piece by piece
     */
    private function give(Production $production, string $what, array $names, ChangeLog $log, bool $flushes): int
    {
        $changed = 0;
        $meant = array_filter($names, static fn(array $one): bool => $one['problems'] === [] && $one['name'] !== $one['was']);
        foreach (array_chunk($meant, self::PIECE) as $piece) {
            $names = array_column($piece, 'name', 'ulid');
            $models = [];
            foreach ($this->models($production, $what, array_keys($names), false) as $model) {
                $name = $names[$model->ulid];
                // A clip that has its file's name again has no other.
                $model instanceof Clip ? ($model->label = $name === $model->name ? null : $name) : ($model->name = $name);
                $changed += (int) $model->isDirty();
                $models[] = $model;
            }
            $log->saveAll($models);
            if ($flushes) {
                $log->flush();
            }
        }

        return $changed;
    }

    /**
     * @param  list<string>  $ulids
     * @param  bool  $ofTakes  whether subclips are meant by their clip's takes
     * @return \Generator<int, Clip|Take|Subclip> in their order, fetched piece by piece
     */
    private function models(Production $production, string $what, array $ulids, bool $ofTakes = true): \Generator
    {
        foreach (array_chunk(array_values(array_unique($ulids)), self::PIECE) as $piece) {
            /** @var Collection<int, Clip|Take|Subclip> $models */
            $models = match ($what) {
                'clips' => Clip::query()
                    ->with(['take', 'device', 'card', 'day'])
                    ->where('production_id', $production->id)
                    ->whereIn('ulid', $piece)
                    ->get(),
                'takes' => Take::query()->with('day')->where('production_id', $production->id)->whereIn('ulid', $piece)->get(),
                // Those of takes are meant where takes are named.
                'subclips' => Subclip::query()
                    ->with(['clip.take', 'clip.device', 'clip.card', 'clip.day'])
                    ->whereHas('clip', static fn($clip) => $clip->where('production_id', $production->id))
                    ->where(
                        static fn($query) => $query
                            ->whereIn('ulid', $piece)
                            ->when(
                                $ofTakes,
                                static fn($either) => $either->orWhereHas('clip.take', static fn($take) => $take->whereIn('ulid', $piece)),
                            ),
                    )
                    ->orderBy('clip_id')
                    ->orderBy('in_ticks')
                    ->get(),
                default => throw new \LogicException("Nothing is called $what"),
            };
            if ($what === 'subclips') {
                yield from $models->values()->all();

                continue;
            }
            $byUlid = $models->keyBy('ulid');
            foreach ($piece as $ulid) {
                yield $byUlid[$ulid] ?? throw Problem::missing('One of those', 'Load the page again.');
            }
        }
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
     * Names in use beside the selection: of clips on the same days, of the production's takes, of the same clip.
     *
     * @param  array<int, true>  $chosen  by id
     * @param  list<int>  $owners  days of clips, clips of subclips
     * @return list<string>
     */
    private function taken(Production $production, string $what, array $chosen, array $owners): array
    {
        $rows = match ($what) {
            'clips' => DB::table('clips')
                ->where('production_id', $production->id)
                ->whereIn('shoot_day_id', $owners)
                ->selectRaw('id, COALESCE(label, name) AS title'),
            'takes' => DB::table('takes')->where('production_id', $production->id)->where('name', '!=', '')->selectRaw('id, name AS title'),
            default => DB::table('subclips')->whereIn('clip_id', array_slice($owners, 0, 20_000))->selectRaw('id, name AS title'),
        };
        $taken = [];
        foreach ($rows->orderBy('id')->cursor() as $row) {
            if (!isset($chosen[(int) $row->id])) {
                $taken[] = $row->title;
            }
        }

        return $taken;
    }
}
