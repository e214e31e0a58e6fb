<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Footage\Away;
use App\Models\Production;
use Cartella\Core\Rules\NearWord;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Finds what was said anywhere in a production: words in any order, phrases in quotes as they stand, the last word as it is being
 * typed. A word that nobody says is taken for the nearest one that somebody does.
 */
final class WordSearch
{
    /** Passages that one answer has, and words that are looked for. */
    public const MOST = 200;

    private const MOST_WORDS = 12;

    /** Times from which a word is said all the time. */
    private const OFTEN = 20_000;

    /** Letters from which a word is in the index. */
    private const INDEXED = 2;

    /**
     * @param  array{speaker?: ?string, scene?: ?string, day?: ?int, circled?: bool}  $only
     * @return array{meant: string|null, speakers: list<string>, more: bool, hits: list<array<string, mixed>>}
     */
    public function of(Production $production, string $text, array $only): array
    {
        [$words, $phrases] = self::parse($text);
        if ($words === [] && $phrases === []) {
            return $this->around($production) + ['meant' => null, 'more' => false, 'hits' => []];
        }
        $rows = $this->rows($production, $words, $phrases, $only);
        $meant = null;
        if ($rows->isEmpty()) {
            [$nearWords, $nearPhrases] = $this->nearest($production, $words, $phrases);
            if ([$nearWords, $nearPhrases] !== [$words, $phrases]) {
                [$words, $phrases] = [$nearWords, $nearPhrases];
                $rows = $this->rows($production, $words, $phrases, $only);
                $meant = trim(implode(' ', $words) . ' ' . implode(' ', array_map(static fn(string $one): string => "\"$one\"", $phrases)));
            }
        }
        $more = $rows->count() > self::MOST;
        $hits = $rows
            ->take(self::MOST)
            ->sortBy([['day', 'asc'], ['sort_key', 'asc'], ['clip_id', 'asc'], ['start_ticks', 'asc']])
            ->map(static fn(object $row): array => self::hit($row, $words, $phrases))
            ->values()
            ->all();

        return $this->around($production) + ['meant' => $meant, 'more' => $more, 'hits' => $hits];
    }

    /** @return array{speakers: list<string>, is_any: bool} */
    private function around(Production $production): array
    {
        return [
            'speakers' => $this->speakers($production),
            'is_any' => DB::table('passages')->where('production_id', $production->id)->exists(),
        ];
    }

    /** @return list<string> who is said to speak anywhere, in the alphabet's order */
    private function speakers(Production $production): array
    {
        // From one to the next in the index, instead of over all that is said.
        $speakers = [];
        $next = '';
        while ($next !== null && count($speakers) < self::MOST) {
            $next = DB::table('passages')->where('production_id', $production->id)->where('speaker', '>', $next)->min('speaker');
            if ($next !== null) {
                $speakers[] = (string) $next;
            }
        }

        return $speakers;
    }

    /**
     * @param  list<string>  $words
     * @param  list<string>  $phrases
     * @param  array{speaker?: ?string, scene?: ?string, day?: ?int, circled?: bool}  $only
     * @return Collection<int, \stdClass>
     */
    private function rows(Production $production, array $words, array $phrases, array $only): Collection
    {
        return self::first(
            $production,
            $words,
            $phrases,
            self::MOST + 1,
            static function (Builder $query) use ($production, $only): void {
                $query
                    ->join('clips', 'clips.id', '=', 'passages.clip_id')
                    ->join('shoot_days', 'shoot_days.id', '=', 'clips.shoot_day_id')
                    ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
                    ->leftJoin('take_parts', static function ($join): void {
                        $join
                            ->on('take_parts.clip_id', '=', 'passages.clip_id')
                            ->whereRaw(
                                '(take_parts.in_ticks IS NULL OR ' .
                                    '(passages.start_ticks >= take_parts.in_ticks AND passages.start_ticks < take_parts.out_ticks))',
                            );
                    })
                    ->leftJoin('takes', 'takes.id', '=', 'take_parts.take_id');
                Away::hide($query, $production);
                if (($only['speaker'] ?? null) !== null) {
                    $query->where('passages.speaker', $only['speaker']);
                }
                if (($only['scene'] ?? null) !== null) {
                    $query->where('takes.scene', $only['scene']);
                }
                if (($only['day'] ?? null) !== null) {
                    $query->where('clips.shoot_day_id', $only['day']);
                }
                if ($only['circled'] ?? false) {
                    $query->where('takes.status', 'circled');
                }
            },
            [
                'passages.ulid',
                'passages.clip_id',
                'passages.start_ticks',
                'passages.end_ticks',
                'passages.speaker',
                'passages.is_draft',
                'passages.words',
                'clips.ulid as clip',
                'clips.name',
                'clips.label',
                'clips.kind',
                'clips.proxied_at',
                'clips.start_ticks as clip_start',
                'devices.letter as device',
                'shoot_days.ulid as day_ulid',
                'shoot_days.number as day',
                'takes.ulid as take',
                'takes.setup',
                'takes.take as number',
                'takes.part',
                'takes.status',
                'takes.sort_key',
            ],
        );
    }

    /**
     * The first passages in which all of it is said. What is said all the time is found by reading, from the first on: an
     * index would gather all of it before the first. What is not is asked of the index.
     *
     * @param  list<string>  $words
     * @param  list<string>  $phrases
     * @param  callable(Builder): mixed  $narrow  joins and narrows further
     * @param  list<string>  $columns
     * @return Collection<int, \stdClass>
     */
    public static function first(
        Production $production,
        array $words,
        array $phrases,
        int $most,
        callable $narrow,
        array $columns,
    ): Collection {
        $all = static fn(): Builder => DB::table('passages')->where('passages.production_id', $production->id);
        if (self::isCommon($production, $words, $phrases)) {
            $read = self::among($all(), $words, $phrases);
            $narrow($read);
            $found = $read->limit($most)->get($columns);
            if ($found->count() >= $most) {
                return $found;
            }
        }
        // A single letter is in no index: where nobody says it, nothing need be read to know that.
        $letters = array_filter([...$words, ...$phrases], static fn(string $one): bool => mb_strlen($one) < self::INDEXED);
        if ($letters !== [] && self::times($production, $letters)->count() < count(array_unique($letters))) {
            return collect();
        }
        $asked = self::said($all(), $words, $phrases);
        $narrow($asked);

        return $asked->limit($most)->get($columns);
    }

    /**
     * Whether all that is looked for is said so often that reading finds enough of it soon; phrases are found by their pairs.
     *
     * @param  list<string>  $words
     * @param  list<string>  $phrases
     */
    private static function isCommon(Production $production, array $words, array $phrases): bool
    {
        if ($words === [] || $phrases !== []) {
            return false;
        }
        $times = self::times($production, $words);

        return count($words) <= 3 && min(array_map(static fn(string $word): int => (int) ($times[$word] ?? 0), $words)) >= self::OFTEN;
    }

    /**
     * @param  array<string>  $words
     * @return Collection<string, int> about how often each is said, of those that are
     */
    private static function times(Production $production, array $words): Collection
    {
        return DB::table('spoken_words')->where('production_id', $production->id)->whereIn('word', $words)->pluck('times', 'word');
    }

    /**
     * The same as {@see said}, by reading.
     *
     * @param  list<string>  $words
     * @param  list<string>  $phrases
     */
    private static function among(Builder $query, array $words, array $phrases): Builder
    {
        foreach (array_values($words) as $at => $word) {
            $query->where('passages.said', 'like', "% $word" . ($at === count($words) - 1 && mb_strlen($word) > 2 ? '%' : ' %'));
        }
        foreach ($phrases as $phrase) {
            $query->where('passages.said', 'like', '% ' . addcslashes($phrase, '%_\\') . ' %');
        }

        return $query;
    }

    /**
     * Narrows a query over `passages` to those in which all of it is said.
     *
     * @param  list<string>  $words  the last one may be a beginning
     * @param  list<string>  $phrases
     */
    private static function said(Builder $query, array $words, array $phrases): Builder
    {
        $asked = [];
        foreach (array_values($words) as $at => $word) {
            if (mb_strlen($word) >= self::INDEXED) {
                $asked[] = '+' . $word . ($at === count($words) - 1 && mb_strlen($word) > 2 ? '*' : '');
            } else {
                $query->where('passages.said', 'like', "% $word %");
            }
        }
        $pairs = [];
        foreach ($phrases as $phrase) {
            if (str_contains($phrase, ' ')) {
                $pairs = [...$pairs, ...explode(' ', PassageWords::pairs($phrase))];
            } elseif (mb_strlen($phrase) >= self::INDEXED) {
                $asked[] = '+' . $phrase;
            }
            $query->where('passages.said', 'like', '% ' . addcslashes($phrase, '%_\\') . ' %');
        }
        if ($pairs !== []) {
            $query->whereRaw('MATCH(passages.pairs) AGAINST (? IN BOOLEAN MODE)', ['+' . implode(' +', array_unique($pairs))]);
            // The pairs have found it; words beside them are looked for in what that leaves.
            foreach ($asked as $word) {
                $query->where('passages.said', 'like', '% ' . trim($word, '+*') . (str_ends_with($word, '*') ? '%' : ' %'));
            }
            $asked = [];
        }
        if ($asked !== []) {
            $query->whereRaw('MATCH(passages.said) AGAINST (? IN BOOLEAN MODE)', [implode(' ', array_unique($asked))]);
        }

        return $query;
    }

    /** @return array{list<string>, list<string>} words, and phrases that stood in quotes, as they lie in the index */
    public static function parse(string $text): array
    {
        $phrases = [];
        $rest = (string) preg_replace_callback(
            '/["“”„]([^"“”„]+)["“”„]?/u',
            static function (array $part) use (&$phrases): string {
                $phrase = trim(PassageWords::said(preg_split('/[\s\p{Pd}]+/u', $part[1], -1, PREG_SPLIT_NO_EMPTY) ?: []));
                if ($phrase !== '') {
                    $phrases[] = $phrase;
                }

                return ' ';
            },
            $text,
        );
        $words = array_filter(array_map(PassageWords::key(...), preg_split('/[\s\p{Pd}]+/u', $rest, -1, PREG_SPLIT_NO_EMPTY) ?: []));

        // What has a meaning in the index's own language is none of ours.
        $plain = static fn(string $word): string => (string) preg_replace('/[^\p{L}\p{N} ]+/u', '', $word);

        return [
            array_slice(array_values(array_filter(array_map($plain, $words))), 0, self::MOST_WORDS),
            array_slice(array_values(array_filter(array_map($plain, $phrases))), 0, self::MOST_WORDS),
        ];
    }

    /**
     * @param  list<string>  $words
     * @param  list<string>  $phrases
     * @return array{list<string>, list<string>}
     */
    private function nearest(Production $production, array $words, array $phrases): array
    {
        $near = static function (string $word) use ($production): string {
            $length = mb_strlen($word);
            $known = DB::table('spoken_words')
                ->where('production_id', $production->id)
                ->whereRaw('CHAR_LENGTH(word) BETWEEN ? AND ?', [$length - 2, $length + 2])
                ->pluck('times', 'word');

            return NearWord::of($word, $known, bySound: true) ?? $word;
        };

        return [
            array_map($near, $words),
            array_map(static fn(string $phrase): string => implode(' ', array_map($near, explode(' ', $phrase))), $phrases),
        ];
    }

    /**
     * @param  list<string>  $words
     * @param  list<string>  $phrases
     * @return array<string, mixed>
     */
    private static function hit(\stdClass $row, array $words, array $phrases): array
    {
        $kept = json_decode($row->words, true) ?: [];
        $keys = array_map(static fn(array $word): string => PassageWords::key((string) $word[0]), $kept);
        $found = [];
        foreach ($keys as $at => $key) {
            foreach ($words as $number => $word) {
                $isLast = $number === count($words) - 1 && mb_strlen($word) > 2;
                if ($key === $word || ($isLast && str_starts_with($key, $word))) {
                    $found[] = $at;
                }
            }
        }
        foreach ($phrases as $phrase) {
            $parts = explode(' ', $phrase);
            for ($at = 0; $at + count($parts) <= count($keys); $at++) {
                if (array_slice($keys, $at, count($parts)) === $parts) {
                    array_push($found, ...range($at, $at + count($parts) - 1));
                }
            }
        }
        $found = array_values(array_unique($found));
        sort($found);

        return [
            'passage' => $row->ulid,
            'clip' => $row->clip,
            'name' => $row->label ?? $row->name,
            'kind' => $row->kind,
            'device' => $row->device,
            'ready' => $row->proxied_at !== null,
            'day' => $row->day_ulid,
            'day_number' => (int) $row->day,
            'take' =>
                $row->take === null
                    ? null
                    : [
                        'ulid' => $row->take,
                        'setup' => $row->setup,
                        'take' => (int) $row->number,
                        'part' => (string) $row->part,
                        'status' => $row->status,
                    ],
            'start_ticks' => (int) $row->start_ticks,
            'end_ticks' => (int) $row->end_ticks,
            'at_ticks' => (int) ($kept[$found[0] ?? 0][1] ?? $row->start_ticks),
            'speaker' => $row->speaker,
            'draft' => (bool) $row->is_draft,
            'words' => array_map(static fn(array $word): string => (string) $word[0], $kept),
            'found' => $found,
        ];
    }
}
