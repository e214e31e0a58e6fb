<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use Cartella\Core\Words\Reads;
use Cartella\Core\Words\ScriptLine;
use Cartella\Core\Words\Word;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;

/** A scene's script joined to its takes: each line with all its reads, lines that nobody said, words that nobody wrote. */
final class SceneReads
{
    /** Seconds that the sums of a scene are kept; their key changes with what they are made of. */
    private const KEPT = 86_400;

    /** @return array{lines: list<array<string, mixed>>, unwritten: list<array<string, mixed>>, takes: int, unheard: list<string>} */
    public function of(Production $production, string $scene): array
    {
        $script = ScriptOf::lines($production, $scene);
        $lines = array_map(
            static fn(ScriptLine $line): array => [
                'number' => $line->number,
                'character' => $line->character,
                'text' => $line->text,
                'reads' => [],
            ],
            $script,
        );
        $unwritten = $unheard = [];
        $takes = Take::query()->where('production_id', $production->id)->where('scene', $scene)->with('day')->orderBy('sort_key')->get();
        $known = $this->known($production, $scene, $script, $takes);
        foreach ($takes as $take) {
            if (!isset($known[$take->id])) {
                $unheard[] = $take->label();

                continue;
            }
            $facts = [
                'take' => $take->ulid,
                'label' => $take->label(),
                'status' => $take->status,
                'day' => $take->day->ulid,
                'clip' => $known[$take->id]['clip'],
            ];
            foreach ($known[$take->id]['reads'] as [$line, $read]) {
                $lines[$line]['reads'][] = $facts + $read;
            }
            foreach ($known[$take->id]['unwritten'] as $said) {
                $unwritten[] = $facts + $said;
            }
        }

        return ['lines' => $lines, 'unwritten' => $unwritten, 'takes' => $takes->count(), 'unheard' => $unheard];
    }

    /**
     * What of the script is said where in each take: kept as long as no word, no line and no stretch of a take changes, since a person
     * who cuts asks for it at every rest of the playhead.
     *
     * @param  list<ScriptLine>  $script
     * @param  Collection<int, Take>  $takes
     * @return array<int, array{clip: string, reads: list<array{int, array<string, mixed>}>, unwritten: list<array<string, mixed>>}> by take
     */
    private function known(Production $production, string $scene, array $script, Collection $takes): array
    {
        $key = $this->keys($production, [$scene])[$scene] ?? '';
        $read = static fn(): array => self::read($script, $takes);

        return $key === '' ? $read() : Cache::remember("$key.takes." . md5(serialize($script)), self::KEPT, $read);
    }

    /**
     * @param  list<ScriptLine>  $script
     * @param  Collection<int, Take>  $takes
     * @return array<int, array{clip: string, reads: list<array{int, array<string, mixed>}>, unwritten: list<array<string, mixed>>}>
     */
    private static function read(array $script, Collection $takes): array
    {
        $known = [];
        foreach (WordsOut::ofTakes($takes->modelKeys()) as $id => ['clip' => $clip, 'words' => $words]) {
            $said = static fn(int $from, int $to): array => [
                'start_ticks' => $words[$from]->startTicks,
                'end_ticks' => $words[$to]->endTicks,
                'text' => implode(
                    ' ',
                    array_map(static fn(Word $word): string => $word->text, array_slice($words, $from, $to - $from + 1)),
                ),
            ];
            $reads = Reads::of($script, $words);
            $known[$id] = ['clip' => $clip->ulid, 'reads' => [], 'unwritten' => []];
            foreach ($reads as $order => $read) {
                $known[$id]['reads'][] = [
                    $read['line'],
                    ['order' => $order + 1, 'share' => round($read['share'], 2)] + $said($read['from'], $read['to']),
                ];
            }
            foreach (self::runs(Reads::unwritten($words, $reads)) as [$from, $to]) {
                $known[$id]['unwritten'][] = $said($from, $to);
            }
        }

        return $known;
    }

    /** @return object by scene of the day: how many lines there are, how many were said, and how often all of them together */
    public function sums(ShootDay $day): object
    {
        $scenes = DB::table('takes')->where('shoot_day_id', $day->id)->distinct()->pluck('scene')->map(strval(...))->all();
        $sums = [];
        foreach ($this->keys($day->production, $scenes) as $scene => $key) {
            $sum = fn(): array => $this->sum($day->production, (string) $scene);
            $sums[(string) $scene] = $key === '' ? $sum() : Cache::remember($key, self::KEPT, $sum);
        }

        return (object) $sums;
    }

    /**
     * @param  list<string>  $scenes
     * @return array<string, string> by scenes of which something is heard, what their reads are kept under; empty while they may not be
     */
    private function keys(Production $production, array $scenes): array
    {
        $stamps = DB::table('takes')
            ->join('take_parts', 'take_parts.take_id', '=', 'takes.id')
            ->join('transcripts', 'transcripts.clip_id', '=', 'take_parts.clip_id')
            ->where('takes.production_id', $production->id)
            ->whereIn('takes.scene', $scenes)
            ->groupBy('takes.scene')
            ->selectRaw(
                'takes.scene, MAX(transcripts.updated_at) AS latest, ' .
                    "SUM(CRC32(CONCAT_WS(' ', take_parts.id, take_parts.in_ticks, take_parts.out_ticks, transcripts.updated_at))) AS parts",
            )
            ->get();
        $written = DB::table('scenes')->where('production_id', $production->id)->whereIn('name', $scenes)->pluck('updated_at', 'name');
        $keys = [];
        foreach ($stamps as $stamp) {
            $scene = (string) $stamp->scene;
            // Times are of whole seconds: what was changed in this one may change in it again.
            $keys[$scene] =
                now()->diffInSeconds($stamp->latest, true) < 2
                    ? ''
                    : 'reads.' . md5(implode('|', [$production->id, $scene, $stamp->parts, $written[$scene] ?? '']));
        }

        return $keys;
    }

    /** @return array{lines: int, said: int, reads: int} */
    private function sum(Production $production, string $scene): array
    {
        $lines = $this->of($production, $scene)['lines'];

        return [
            'lines' => count($lines),
            'said' => count(array_filter($lines, static fn(array $line): bool => $line['reads'] !== [])),
            'reads' => array_sum(array_map(static fn(array $line): int => count($line['reads']), $lines)),
        ];
    }

    /**
     * @param  list<int>  $indexes
     * @return list<array{int, int}> first and last of each run
     */
    private static function runs(array $indexes): array
    {
        $runs = [];
        foreach ($indexes as $at) {
            $last = count($runs) - 1;
            if ($last >= 0 && $runs[$last][1] === $at - 1) {
                $runs[$last][1] = $at;
            } else {
                $runs[] = [$at, $at];
            }
        }

        return $runs;
    }
}
