<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Clip;
use App\Models\Passage;
use App\Models\Take;
use App\Models\TakePart;
use App\Support\Clock;
use Cartella\Core\Words\CueWriter;
use Cartella\Core\Words\Transcript as Words;
use Cartella\Core\Words\Word;
use Illuminate\Database\Eloquent\Collection as Clips;
use Illuminate\Support\Facades\DB;

/** Words as files: text with timecode, SRT, WebVTT; of a clip, of a take, of several one after the other. */
final class WordsOut
{
    public const FORMATS = ['txt', 'srt', 'vtt'];

    /**
     * @param  list<Word>  $words
     * @param  int  $fromTicks  that is taken off their times
     */
    public static function file(string $format, array $words, ?Clip $clip = null, int $fromTicks = 0): string
    {
        $words = array_map(
            static fn(Word $word): Word => new Word(
                $word->text,
                max(0, $word->startTicks - $fromTicks),
                max(0, $word->endTicks - $fromTicks),
                $word->speaker,
                $word->confidence,
                $word->isDraft,
            ),
            $words,
        );

        return match ($format) {
            'srt' => CueWriter::srt(new Words($words)),
            'vtt' => CueWriter::vtt(new Words($words)),
            default => self::text($words, $clip, $fromTicks),
        };
    }

    /** @return array{clip: Clip, words: list<Word>, from: int} the part of a take whose words are its own: the recording with the most */
    public static function ofTake(Take $take): array
    {
        $own = self::ofTakes([$take->id])[$take->id] ?? null;
        if ($own !== null) {
            return $own;
        }
        // A recording that is not in the take may lie under its picture.
        $parts = TakePart::query()
            ->where('take_id', $take->id)
            ->with(['clip.placement', 'clip.day', 'clip.production', 'clip.device'])
            ->get();
        foreach ($parts as $part) {
            $words = ClipWords::words($part->clip, (int) $part->in_ticks, $part->out_ticks);
            if ($words !== []) {
                return ['clip' => $part->clip, 'words' => $words, 'from' => (int) $part->in_ticks];
            }
        }

        return ['clip' => $parts->first()->clip ?? new Clip(), 'words' => [], 'from' => 0];
    }

    /**
     * What is said in recordings and pictures of many takes, read at once; takes in none of which anything was heard are left out.
     *
     * @param  list<int>  $takes  ids
     * @return array<int, array{clip: Clip, words: list<Word>, from: int}> by take
     */
    public static function ofTakes(array $takes): array
    {
        $passages = Passage::query()
            ->join('take_parts', 'take_parts.clip_id', '=', 'passages.clip_id')
            ->whereIn('take_parts.take_id', $takes)
            ->whereRaw(
                '(take_parts.in_ticks IS NULL
                    OR (passages.end_ticks > take_parts.in_ticks AND passages.start_ticks < take_parts.out_ticks))',
            )
            ->orderBy('passages.start_ticks')
            ->orderBy('passages.id')
            ->get(['passages.*', 'take_parts.id as part_id', 'take_parts.take_id', 'take_parts.in_ticks', 'take_parts.out_ticks']);
        $clips = Clip::query()
            ->whereKey($passages->pluck('clip_id')->unique()->values())
            ->with(['placement', 'day', 'production', 'device'])
            ->get()
            ->keyBy('id');
        $parts = $best = [];
        foreach ($passages as $passage) {
            $parts[(int) $passage->getAttribute('part_id')][] = $passage;
        }
        foreach ($parts as $ofPart) {
            $first = $ofPart[0];
            $from = (int) $first->getAttribute('in_ticks');
            $to = $first->getAttribute('out_ticks') ?? PHP_INT_MAX;
            $words = [];
            foreach ($ofPart as $passage) {
                foreach (PassageWords::of($passage) as $word) {
                    if ($word->endTicks > $from && $word->startTicks < $to) {
                        $words[] = $word;
                    }
                }
            }
            $take = (int) $first->getAttribute('take_id');
            $clip = $clips[$first->clip_id];
            // Recordings come first: what a picture's own microphone has is theirs.
            $weight = [$clip->isSound(), count($words)];
            if ($words !== [] && (!isset($best[$take]) || $weight > [$best[$take]['clip']->isSound(), count($best[$take]['words'])])) {
                $best[$take] = ['clip' => $clip, 'words' => $words, 'from' => $from];
            }
        }

        return $best;
    }

    /**
     * When the words of takes changed last.
     *
     * @param  list<int>  $takes  ids
     * @return array<int, string> by take, for those that have any
     */
    public static function stamps(array $takes): array
    {
        return DB::table('take_parts')
            ->join('transcripts', 'transcripts.clip_id', '=', 'take_parts.clip_id')
            ->whereIntegerInRaw('take_parts.take_id', $takes)
            ->groupBy('take_parts.take_id')
            ->selectRaw("take_parts.take_id, CONCAT(COUNT(*), ' ', MAX(transcripts.updated_at)) AS stamp")
            ->pluck('stamp', 'take_id')
            ->all();
    }

    /**
     * What lies in a bin, one after the other under headings.
     *
     * @param  Clips<int, Clip>  $clips
     */
    public static function ofClips(Clips $clips, string $format): string
    {
        $text = '';
        $at = 0;
        $all = [];
        $own = DB::table('transcripts')->whereIntegerInRaw('clip_id', $clips->modelKeys())->pluck('clip_id', 'clip_id');
        $days = DB::table('transcripts')
            ->join('clips', 'clips.id', '=', 'transcripts.clip_id')
            ->distinct()
            ->pluck('shoot_day_id', 'shoot_day_id');
        foreach ($clips as $clip) {
            // A picture has what lies under it; of a day on which nothing was listened to nobody need be asked.
            $mayHave = isset($own[$clip->id]) || ($clip->isPicture() && isset($days[$clip->shoot_day_id]));
            $words = $mayHave ? ClipWords::words($clip) : [];
            if ($format === 'txt') {
                $text .= $words === [] ? '' : "== {$clip->title()}\n\n" . self::text($words, $clip, 0) . "\n";

                continue;
            }
            // On one clock: each begins where the one before it ends.
            foreach ($words as $word) {
                $all[] = $word->later($at);
            }
            $at += (int) $clip->duration_ticks;
        }

        return $format === 'txt' ? $text : self::file($format, $all);
    }

    /** @param  list<Word>  $words  paragraphs with the clip's timecode in front */
    private static function text(array $words, ?Clip $clip, int $fromTicks): string
    {
        $lines = [];
        $rate = $clip === null ? null : $clip->rate() ?? $clip->production->rate();
        foreach ((new Words($words))->paragraphs() as $paragraph) {
            $label = $rate === null ? null : Clock::label((int) $clip?->start_ticks + $fromTicks + $paragraph[0]->startTicks, $rate);
            $lines[] = trim(
                ($label ?? '') .
                    '  ' .
                    ($paragraph[0]->speaker === null ? '' : $paragraph[0]->speaker . ': ') .
                    implode(' ', array_column($paragraph, 'text')),
            );
        }

        return implode("\n", $lines) . ($lines === [] ? '' : "\n");
    }
}
