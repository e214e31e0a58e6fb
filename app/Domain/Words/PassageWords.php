<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Clip;
use App\Models\Passage;
use App\Models\Transcript;
use Cartella\Core\Rules\Condition;
use Cartella\Core\Words\SpokenText;
use Cartella\Core\Words\Word;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * The one place that turns words into rows and back: {@see Passage} says how they lie there.
 *
 * @phpstan-type Kept array{0: string, 1: int, 2: int, 3: float|null, 4?: string}
 */
final class PassageWords
{
    /**
     * @param  non-empty-list<Word>  $words  of one paragraph
     */
    public static function make(Transcript $transcript, Clip $clip, array $words): Passage
    {
        $passage = new Passage([
            'production_id' => $transcript->production_id,
            'transcript_id' => $transcript->id,
            'clip_id' => $clip->id,
            'speaker' => $words[0]->speaker,
            'is_draft' => 2 * count(array_filter($words, static fn(Word $word): bool => $word->isDraft)) > count($words),
            ...self::columns(
                array_map(static fn(Word $word): array => [$word->text, $word->startTicks, $word->endTicks, $word->confidence], $words),
            ),
        ]);
        $passage->ulid = (string) Str::ulid();

        return $passage;
    }

    /**
     * What a passage's row holds of its words.
     *
     * @param  non-empty-list<Kept>  $words
     * @return array{words: list<Kept>, said: string, pairs: string, start_ticks: int, end_ticks: int}
     */
    public static function columns(array $words): array
    {
        $said = self::said(array_column($words, 0));

        return [
            'words' => $words,
            'said' => $said,
            'pairs' => self::pairs($said),
            'start_ticks' => (int) min(array_column($words, 1)),
            'end_ticks' => (int) max(array_column($words, 2)),
        ];
    }

    /** @param  list<string>  $texts  as they are looked for: small letters, no signs, a space at both ends */
    public static function said(array $texts): string
    {
        return ' ' . implode(' ', array_filter(array_map(self::key(...), $texts), static fn(string $key): bool => $key !== '')) . ' ';
    }

    /**
     * Words that stand beside each other, each pair as one: a phrase of words that are said all the time is found by them.
     *
     * @param  string  $said  as {@see said} gives it
     */
    public static function pairs(string $said): string
    {
        $words = explode(' ', trim($said));
        $pairs = [];
        foreach (array_slice($words, 1) as $at => $word) {
            $pairs[] = "{$words[$at]}_$word";
        }

        return implode(' ', array_unique($pairs));
    }

    /** One word as it is looked for. */
    public static function key(string $text): string
    {
        return str_replace("'", '', Condition::fold(SpokenText::key($text)));
    }

    /** @return list<Word> */
    public static function of(Passage $passage): array
    {
        return array_map(
            static fn(array $word): Word => new Word(
                $word[0],
                (int) $word[1],
                (int) $word[2],
                $passage->speaker,
                $word[3] === null ? null : (float) $word[3],
                $passage->is_draft,
            ),
            $passage->words,
        );
    }

    /**
     * Remembers words of a production and about how often they are said: for near misses, and for how a search is carried out.
     *
     * @param  iterable<string>  $said  as {@see said} gives them
     */
    public static function remember(int $production, iterable $said): void
    {
        $times = [];
        foreach ($said as $text) {
            foreach (explode(' ', trim($text)) as $word) {
                if ($word !== '' && strlen($word) <= 60) {
                    $times[$word] = ($times[$word] ?? 0) + 1;
                }
            }
        }
        foreach (array_chunk($times, 1000, true) as $chunk) {
            $rows = [];
            foreach ($chunk as $word => $count) {
                $rows[] = ['production_id' => $production, 'word' => (string) $word, 'times' => $count];
            }
            DB::table('spoken_words')->upsert($rows, ['production_id', 'word'], ['times' => DB::raw('times + VALUES(times)')]);
        }
    }
}
