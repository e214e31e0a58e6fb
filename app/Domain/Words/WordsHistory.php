<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Change;
use App\Models\Clip;

/** Who did what to the words of a clip, newest first: the steps that touched its passages. */
final class WordsHistory
{
    private const TOLD = 50;

    /** @return list<array{label: string, by: string, at: string|null, undone: bool}> */
    public static function of(Clip $clip): array
    {
        return Change::query()
            ->with('user')
            ->join('change_clips', 'change_clips.change_id', '=', 'changes.id')
            ->where('change_clips.clip_id', $clip->id)
            ->latest('changes.id')
            ->limit(self::TOLD)
            // Not their rows: the words of a long recording are many.
            ->get(['changes.id', 'changes.user_id', 'changes.label', 'changes.created_at', 'changes.undone_at'])
            ->map(
                static fn(Change $step): array => [
                    'label' => $step->label,
                    'by' => $step->user->name,
                    'at' => $step->created_at?->toIso8601String(),
                    'undone' => $step->undone_at !== null,
                ],
            )
            ->all();
    }
}
