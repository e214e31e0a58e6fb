<?php

declare(strict_types=1);

namespace App\Domain\Words;

use Illuminate\Support\Facades\DB;

/**
 * Where the floor calls for action in takes, on the clock of each of their pictures: as heard in the picture's own sound, or in a
 * recording of the same take that the line-up put beside it.
 */
final class ActionCalls
{
    /** Confidence under which a call is none; a word that a person wrote has no doubt. */
    private const SURE = 0.6;

    /**
     * @param  list<int>  $takes  ids
     * @return array<int, array<int, int>> ticks from the picture's first frame, by take and clip
     */
    public static function of(array $takes): array
    {
        $found = [];
        $rows = DB::table('transcripts')
            ->join('take_parts as heard', 'heard.clip_id', '=', 'transcripts.clip_id')
            ->join('take_parts as seen', 'seen.take_id', '=', 'heard.take_id')
            ->join('clips', 'clips.id', '=', 'seen.clip_id')
            ->leftJoin('placements as sound', 'sound.clip_id', '=', 'heard.clip_id')
            ->leftJoin('placements as picture', 'picture.clip_id', '=', 'seen.clip_id')
            ->where('clips.kind', 'picture')
            ->whereIntegerInRaw('heard.take_id', $takes)
            ->whereRaw("JSON_VALUE(transcripts.calls, '$.actions[0].ticks') IS NOT NULL")
            ->whereRaw(
                '(heard.clip_id = seen.clip_id OR (sound.start_ticks IS NOT NULL AND picture.start_ticks IS NOT NULL ' .
                    'AND sound.`group` = picture.`group`))',
            )
            ->get([
                'heard.take_id',
                'heard.in_ticks',
                'heard.out_ticks',
                'heard.clip_id as sound_id',
                'seen.clip_id',
                'clips.duration_ticks',
                'sound.start_ticks as sound_start',
                'picture.start_ticks as picture_start',
                'transcripts.calls',
            ]);
        foreach ($rows as $row) {
            $offset = $row->sound_id === $row->clip_id ? 0 : (int) $row->sound_start - (int) $row->picture_start;
            foreach (json_decode($row->calls, true)['actions'] ?? [] as ['ticks' => $at, 'confidence' => $confidence]) {
                // A recording over several takes has one call for each of them.
                $isInPart = $row->in_ticks === null || ($at >= $row->in_ticks && $at < $row->out_ticks);
                if (
                    $isInPart &&
                    ($confidence ?? 1.0) >= self::SURE &&
                    $at + $offset >= 0 &&
                    $at + $offset < (int) ($row->duration_ticks ?? PHP_INT_MAX)
                ) {
                    $found[(int) $row->take_id][(int) $row->clip_id] = $at + $offset;
                    break;
                }
            }
        }

        return $found;
    }
}
