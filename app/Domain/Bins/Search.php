<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\Away;
use App\Domain\Words\WordSearch;
use App\Models\Production;
use App\Models\SequenceKind;
use Cartella\Core\Rules\Condition;
use Cartella\Core\Rules\NearWord;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;

/**
 * Finds things by a few words or letters of what is known of them: takes by slate, fields and names, clips by the names they have and came
 * with, markers, subclips, cuts and bins; all of the words have to be there. A word that nothing has is taken for the nearest one
 * that something has.
 */
final class Search
{
    /** Of each sort so many are told. */
    public const MOST = 8;

    private const WORDS = 6;

    /** Seconds for which the words of a production are kept: they only help where nothing was found as it was typed. */
    private const KEPT = 600;

    /**
     * @return array{meant: string|null, hits: list<array{what: string, ulid: string, name: string, note: string, clip: string|null,
     *     kind: string|null, ready: bool, device: string|null, at_ticks: int|null, day: string|null, number: int|null,
     *     take: array{setup: string, take: int, part: string, status: string}|null}>}
     */
    public function of(Production $production, string $text): array
    {
        $words = array_slice(preg_split('/\s+/u', trim($text), -1, PREG_SPLIT_NO_EMPTY) ?: [], 0, self::WORDS);
        if ($words === []) {
            return ['meant' => null, 'hits' => []];
        }
        $hits = $this->found($production, $words);
        if ($hits !== []) {
            return ['meant' => null, 'hits' => $hits];
        }
        $meant = $this->meant($production, $words);
        $hits = $meant === $words ? [] : $this->found($production, $meant);

        return ['meant' => $hits === [] ? null : implode(' ', $meant), 'hits' => $hits];
    }

    /**
     * By the beginnings of words, which have an index; where nothing begins so, by letters anywhere, for which everything is read.
     *
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function found(Production $production, array $words): array
    {
        $beginnings = self::beginnings($words);
        $hits =
            $beginnings === null
                ? $this->takes($production, $this->ofSlates($production, $words, null), $words)
                : [
                    ...$this->takes(
                        $production,
                        [
                            ...$this->ofSlates($production, $words, $beginnings),
                            self::ask(self::allTakes($production), $words, $beginnings, self::FIELDS),
                        ],
                        $words,
                    ),
                    ...$this->others($production, $words, $beginnings),
                ];

        return $hits !== []
            ? $hits
            : [...$this->takes($production, $this->anywhere($production, $words), $words), ...$this->others($production, $words, null)];
    }

    private const FIELDS = ['takes.description', 'takes.notes', 'takes.keywords', 'takes.name'];

    /** Of very many takes that have a word, so many are put in their order. */
    private const SORTED = 400;

    private static function allTakes(Production $production): Builder
    {
        return DB::table('takes')->where('takes.production_id', $production->id);
    }

    /**
     * Takes by letters anywhere in their fields, and in what the production added.
     *
     * @param  list<string>  $words
     * @return list<Builder>
     */
    private function anywhere(Production $production, array $words): array
    {
        $queries = [...$this->ofSlates($production, $words, null), self::ask(self::allTakes($production), $words, null, self::FIELDS)];
        if ($production->fields()->own() !== []) {
            $own = self::allTakes($production);
            foreach ($words as $word) {
                // Values alone: a letter of a field's name finds nothing.
                $own->whereRaw("JSON_SEARCH(takes.own, 'one', ?, NULL, '$.*') IS NOT NULL", ['%' . addcslashes($word, '%_\\') . '%']);
            }
            $queries[] = $own;
        }

        return $queries;
    }

    /**
     * Takes whose slate some of the words are, with the other words in their fields: *3A ledger*.
     *
     * @param  list<string>  $words
     * @return list<Builder> none where no word is a slate
     */
    private function ofSlates(Production $production, array $words, ?string $beginnings): array
    {
        $isSlate = static fn(string $word): bool => preg_match('#\A\w[\w-]*(/\d{0,3}[a-z]?)?\z#u', $word) === 1 &&
            preg_match('/\d/', $word) === 1;
        $slates = array_values(array_filter($words, $isSlate));
        if ($slates === []) {
            return [];
        }
        $query = self::allTakes($production);
        foreach ($slates as $slate) {
            [$setup, $take] = [...explode('/', $slate, 2), null];
            $query->where('setup', 'like', addcslashes((string) $setup, '%_\\') . ($take === null ? '%' : ''));
            if ($take !== null && $take !== '') {
                $query->whereRaw('CONCAT(take, part) LIKE ?', ["$take%"]);
            }
        }
        $rest = array_values(array_diff($words, $slates));

        return [$rest === [] ? $query : self::ask($query, $rest, $beginnings === null ? null : self::beginnings($rest), self::FIELDS)];
    }

    /**
     * As the index is asked: `+gull* +boom*`; null for what it has no words for, such as single letters and signs.
     *
     * @param  list<string>  $words
     */
    private static function beginnings(array $words): ?string
    {
        $asked = [];
        foreach ($words as $word) {
            if (preg_match('/\A[\p{L}\p{N}_]{2,}\z/u', $word) !== 1) {
                return null;
            }
            $asked[] = "+$word*";
        }

        return implode(' ', $asked);
    }

    /**
     * Asks that all words stand in some columns, which have an index of their words together.
     *
     * @param  list<string>  $words
     * @param  list<string>  $columns
     */
    private static function ask(Builder $query, array $words, ?string $beginnings, array $columns): Builder
    {
        if ($beginnings !== null) {
            return $query->whereRaw(sprintf('MATCH (%s) AGAINST (? IN BOOLEAN MODE)', implode(', ', $columns)), [$beginnings]);
        }
        foreach ($words as $word) {
            $like = '%' . addcslashes($word, '%_\\') . '%';
            $query->where(static function (Builder $one) use ($columns, $like): void {
                foreach ($columns as $column) {
                    $one->orWhere($column, 'like', $like);
                }
            });
        }

        return $query;
    }

    /**
     * Everything but takes.
     *
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function others(Production $production, array $words, ?string $beginnings): array
    {
        return [
            ...$this->clips($production, $words, $beginnings),
            ...$this->markers($production, $words, $beginnings),
            ...$this->spoken($production, $words),
            ...$this->subclips($production, $words, $beginnings),
            ...$this->named($production, $words, 'sequences', static fn(Builder $query) => $query->whereNull('removed_at')),
            ...$this->named($production, $words, 'bins', static fn(Builder $query) => $query),
        ];
    }

    /**
     * @param  list<Builder>  $queries  the best first
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function takes(Production $production, array $queries, array $words): array
    {
        $rows = [];
        foreach ($queries as $query) {
            if (count($rows) < self::MOST) {
                $some = DB::query()->fromSub($query->limit(self::SORTED)->select(self::OF_TAKE), 'some');
                $rows += $some->orderBy('sort_key')->orderBy('id')->limit(self::MOST)->get()->keyBy('id')->all();
            }
        }
        $rows = array_slice(array_values($rows), 0, self::MOST);
        $first = $this->firstClips(array_column($rows, 'id'));
        $days = $this->days($production);

        return array_map(static function (object $take) use ($first, $days, $words): array {
            $clip = $first[$take->id] ?? null;

            return [
                'what' => 'take',
                'ulid' => $take->ulid,
                'name' => "$take->setup/$take->take$take->part",
                'note' => self::lineOf($words, [$take->description, (string) $take->notes, $take->keywords]),
                'at_ticks' => $clip?->in_ticks === null ? null : (int) $clip->in_ticks,
                'take' => ['setup' => $take->setup, 'take' => (int) $take->take, 'part' => $take->part, 'status' => $take->status],
            ] + self::behind($clip, $days[$take->shoot_day_id] ?? null);
        }, $rows);
    }

    private const OF_TAKE = [
        'takes.id',
        'takes.ulid',
        'takes.setup',
        'takes.take',
        'takes.part',
        'takes.description',
        'takes.notes',
        'takes.keywords',
        'takes.status',
        'takes.shoot_day_id',
        'takes.sort_key',
    ];

    /**
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function clips(Production $production, array $words, ?string $beginnings): array
    {
        $query = self::ask($this->ofClips($production), $words, $beginnings, ['clips.name', 'clips.label']);
        $together = '%' . addcslashes(implode(' ', $words), '%_\\') . '%';
        $days = $this->days($production);

        return $query
            // Words that stand together as they were typed come first.
            ->orderByRaw("(clips.name LIKE ? OR COALESCE(clips.label, '') LIKE ?) DESC", [$together, $together])
            ->orderBy('clips.name')
            ->limit(self::MOST)
            ->get([...self::OF_CLIP, 'clips.name', 'clips.label'])
            ->map(
                static fn(object $clip): array => [
                    'what' => 'clip',
                    'ulid' => $clip->ulid,
                    'name' => $clip->label ?? $clip->name,
                    'note' => $clip->label === null ? '' : $clip->name,
                    'at_ticks' => null,
                    'take' => null,
                ] + self::behind($clip, $days[$clip->shoot_day_id] ?? null),
            )
            ->all();
    }

    /**
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function markers(Production $production, array $words, ?string $beginnings): array
    {
        $query = $this->ofClips($production)->join('markers', 'markers.clip_id', '=', 'clips.id');
        $days = $this->days($production);

        return self::ask($query, $words, $beginnings, ['markers.name', 'markers.note'])
            ->orderBy('clips.shoot_day_id')
            ->orderBy('markers.in_ticks')
            ->limit(self::MOST)
            ->get([
                ...self::OF_CLIP,
                'markers.ulid as marker',
                'markers.name as marked',
                'markers.note',
                'markers.in_ticks',
                'clips.name',
                'clips.label',
            ])
            ->map(
                static fn(object $row): array => [
                    'what' => 'marker',
                    'ulid' => $row->marker,
                    'name' => $row->marked !== '' ? $row->marked : $row->note,
                    'note' => $row->label ?? $row->name,
                    'at_ticks' => (int) $row->in_ticks,
                    'take' => null,
                ] + self::behind($row, $days[$row->shoot_day_id] ?? null),
            )
            ->all();
    }

    /**
     * What is said; the page of words finds all of it.
     *
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function spoken(Production $production, array $words): array
    {
        [$asked] = WordSearch::parse(implode(' ', $words));
        if ($asked === []) {
            return [];
        }
        $days = $this->days($production);
        $narrow = static fn(Builder $query) => Away::hide(
            $query->join('clips', 'clips.id', '=', 'passages.clip_id')->leftJoin('devices', 'devices.id', '=', 'clips.device_id'),
            $production,
        );
        $columns = [
            ...self::OF_CLIP,
            'passages.ulid as passage',
            'passages.said',
            'passages.words',
            'passages.speaker',
            'passages.start_ticks',
            'clips.name',
            'clips.label',
        ];

        return WordSearch::first($production, $asked, [], self::MOST, $narrow, $columns)
            ->map(static function (object $row) use ($days, $asked): array {
                $kept = json_decode($row->words, true) ?: [];
                $text = implode(' ', array_column($kept, 0));

                return [
                    'what' => 'spoken',
                    'ulid' => $row->passage,
                    'name' => mb_substr(($row->speaker === null ? '' : "$row->speaker: ") . self::lineOf([$asked[0]], [$text]), 0, 160),
                    'note' => $row->label ?? $row->name,
                    'at_ticks' => (int) $row->start_ticks,
                    'take' => null,
                ] + self::behind($row, $days[$row->shoot_day_id] ?? null);
            })
            ->all();
    }

    /**
     * @param  list<string>  $words
     * @return list<array<string, mixed>>
     */
    private function subclips(Production $production, array $words, ?string $beginnings): array
    {
        $query = $this->ofClips($production)->join('subclips', 'subclips.clip_id', '=', 'clips.id');
        $days = $this->days($production);

        return self::ask($query, $words, $beginnings, ['subclips.name'])
            ->orderBy('subclips.name')
            ->limit(self::MOST)
            ->get([...self::OF_CLIP, 'subclips.ulid as sub', 'subclips.name as called', 'subclips.in_ticks', 'clips.name', 'clips.label'])
            ->map(
                static fn(object $row): array => [
                    'what' => 'subclip',
                    'ulid' => $row->sub,
                    'name' => $row->called,
                    'note' => $row->label ?? $row->name,
                    'at_ticks' => $row->in_ticks === null ? null : (int) $row->in_ticks,
                    'take' => null,
                ] + self::behind($row, $days[$row->shoot_day_id] ?? null),
            )
            ->all();
    }

    /**
     * @param  list<string>  $words
     * @param  'sequences'|'bins'  $table
     * @param  callable(Builder): Builder  $only
     * @return list<array<string, mixed>>
     */
    private function named(Production $production, array $words, string $table, callable $only): array
    {
        return self::ask($only(DB::table($table)->where('production_id', $production->id)), $words, null, ['name'])
            ->orderBy('name')
            ->limit(self::MOST)
            ->get()
            ->map(
                static fn(object $row): array => [
                    'what' => $table === 'bins' ? 'bin' : 'sequence',
                    'ulid' => $row->ulid,
                    'name' => $row->name,
                    'note' => $table === 'sequences' ? SequenceKind::from($row->kind)->called() : '',
                    'at_ticks' => null,
                    'take' => null,
                    'kind' => $table === 'sequences' ? $row->kind : null,
                ] + self::behind(null, null),
            )
            ->all();
    }

    private const OF_CLIP = ['clips.ulid', 'clips.kind', 'clips.shoot_day_id', 'clips.proxied_at', 'devices.letter'];

    private function ofClips(Production $production): Builder
    {
        return Away::hide(DB::table('clips'), $production)
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->where('clips.production_id', $production->id);
    }

    /**
     * @param  list<int>  $takes
     * @return array<int, object> the first camera's clip of each, by take
     */
    private function firstClips(array $takes): array
    {
        return DB::table('take_parts')
            ->join('clips', 'clips.id', '=', 'take_parts.clip_id')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->whereIntegerInRaw('take_parts.take_id', $takes)
            ->orderByRaw("clips.kind <> 'picture' DESC, devices.lane DESC, clips.start_ticks DESC")
            ->get([...self::OF_CLIP, 'take_parts.take_id', 'take_parts.in_ticks'])
            ->keyBy('take_id')
            ->all();
    }

    /** @return array<int, object> ULID and number by id */
    private function days(Production $production): array
    {
        return $this->days[$production->id] ??= DB::table('shoot_days')
            ->where('production_id', $production->id)
            ->get(['id', 'ulid', 'number'])
            ->keyBy('id')
            ->all();
    }

    /** @var array<int, array<int, object>> by production */
    private array $days = [];

    /** @return array<string, mixed> the clip that is shown for a hit, and its day */
    private static function behind(?object $clip, ?object $day): array
    {
        return [
            'clip' => $clip?->ulid,
            'kind' => $clip?->kind,
            'ready' => $clip?->proxied_at !== null,
            'device' => $clip?->letter,
            'day' => $day?->ulid,
            'number' => $day === null ? null : (int) $day->number,
        ];
    }

    /**
     * The line in which the first word was found, else the first of all.
     *
     * @param  list<string>  $words
     * @param  list<string>  $texts
     */
    private static function lineOf(array $words, array $texts): string
    {
        $lines = preg_split('/\R/u', implode("\n", $texts)) ?: [];
        foreach ($lines as $line) {
            if (str_contains(Condition::fold($line), Condition::fold($words[0]))) {
                return mb_substr($line, 0, 160);
            }
        }

        return mb_substr($texts[0], 0, 160);
    }

    /**
     * The words with those that nothing has put right: one letter too many, too few or another one, two in long words.
     *
     * @param  list<string>  $words
     * @return list<string>
     */
    private function meant(Production $production, array $words): array
    {
        $known = Cache::remember("search-words.$production->id", self::KEPT, fn(): array => $this->known($production));

        return array_map(static fn(string $word): string => NearWord::of(Condition::fold($word), $known) ?? $word, $words);
    }

    /** @return array<string, int> how often the production says each word, folded */
    private function known(Production $production): array
    {
        $known = [];
        $read = static function (string $text) use (&$known): void {
            foreach (preg_split('/[^\p{L}\p{N}]+/u', Condition::fold($text), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
                if (strlen($word) >= NearWord::SHORTEST - 1 && strlen($word) <= NearWord::LONGEST) {
                    $known[$word] = ($known[$word] ?? 0) + 1;
                }
            }
        };
        foreach (['description', 'notes', 'keywords'] as $column) {
            foreach (
                DB::table('takes')->where('production_id', $production->id)->whereNotNull($column)->distinct()->pluck($column)
                as $text
            ) {
                $read($text);
            }
        }
        foreach (['markers' => ['name', 'note'], 'subclips' => ['name']] as $table => $columns) {
            foreach ($columns as $column) {
                $texts = DB::table($table)
                    ->join('clips', 'clips.id', '=', "$table.clip_id")
                    ->where('clips.production_id', $production->id)
                    ->distinct()
                    ->pluck("$table.$column");
                foreach ($texts as $text) {
                    $read($text);
                }
            }
        }
        foreach (DB::table('spoken_words')->where('production_id', $production->id)->pluck('word') as $text) {
            $read((string) $text);
        }
        foreach (['sequences', 'bins'] as $table) {
            foreach (DB::table($table)->where('production_id', $production->id)->distinct()->pluck('name') as $text) {
                $read($text);
            }
        }

        return $known;
    }
}
