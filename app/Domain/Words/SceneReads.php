<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use Cartella\Core\Words\Reads;
use Cartella\Core\Words\ScriptLine;
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
        $heard = WordsOut::ofTakes($takes->modelKeys());
        foreach ($takes as $take) {
            if (!isset($heard[$take->id])) {
                $unheard[] = $take->label();

                continue;
            }
            ['clip' => $clip, 'words' => $words] = $heard[$take->id];
            $facts = [
                'take' => $take->ulid,
                'label' => $take->label(),
                'status' => $take->status,
                'day' => $take->day->ulid,
                'clip' => $clip->ulid,
            ];
            $reads = Reads::of($script, $words);
            foreach ($reads as $order => $read) {
                $lines[$read['line']]['reads'][] = $facts + [
                    'order' => $order + 1,
                    'start_ticks' => $words[$read['from']]->startTicks,
                    'end_ticks' => $words[$read['to']]->endTicks,
                    'share' => round($read['share'], 2),
                    'text' => implode(
                        ' ',
                        array_map(
                            static fn($word): string => $word->text,
                            array_slice($words, $read['from'], $read['to'] - $read['from'] + 1),
                        ),
                    ),
                ];
            }
            foreach (self::runs(Reads::unwritten($words, $reads)) as [$from, $to]) {
                $unwritten[] = $facts + [
                    'start_ticks' => $words[$from]->startTicks,
                    'end_ticks' => $words[$to]->endTicks,
                    'text' => implode(' ', array_map(static fn($word): string => $word->text, array_slice($words, $from, $to - $from + 1))),
                ];
            }
        }

        return ['lines' => $lines, 'unwritten' => $unwritten, 'takes' => $takes->count(), 'unheard' => $unheard];
    }

    /** @return object by scene of the day: how many lines there are, how many were said, and how often all of them together */
    public function sums(ShootDay $day): object
    {
        $production = $day->production;
        $scenes = DB::table('takes')->where('shoot_day_id', $day->id)->distinct()->pluck('scene');
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
        $sums = [];
        foreach ($stamps as $stamp) {
            $scene = (string) $stamp->scene;
            $key = 'reads.' . md5(implode('|', [$production->id, $scene, $stamp->parts, $written[$scene] ?? '']));
            // Times are of whole seconds: what was changed in this one may change in it again.
            $sums[$scene] =
                now()->diffInSeconds($stamp->latest, true) < 2
                    ? $this->sum($production, $scene)
                    : Cache::remember($key, self::KEPT, fn(): array => $this->sum($production, $scene));
        }

        return (object) $sums;
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
