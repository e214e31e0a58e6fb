<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Passage;
use App\Models\Scene;
use App\Models\Transcript;
use Cartella\Core\Words\SpokenSlate;

/** Keeps with a clip's words what the floor calls in them; found again whenever they change. */
final class HeardCalls
{
    /** Whether words of a passage may be part of a call. */
    public static function mayBeIn(string $said): bool
    {
        return preg_match('/ (take|action|cut) /', $said) === 1;
    }

    public static function keep(int $clip): void
    {
        $transcript = Transcript::query()->with('clip.production')->where('clip_id', $clip)->first();
        if ($transcript === null) {
            return;
        }
        $words = [];
        foreach (Passage::query()->where('transcript_id', $transcript->id)->orderBy('start_ticks')->orderBy('id')->cursor() as $passage) {
            array_push($words, ...PassageWords::of($passage));
        }
        $production = $transcript->clip->production;
        $calls = SpokenSlate::of(
            $words,
            $production->slate_style,
            array_map(
                strval(...),
                Scene::query()->where('production_id', $production->id)->whereNotNull('script_order')->pluck('name')->all(),
            ),
        );
        $transcript->calls = [
            'slate' => $calls->toArray(),
            'actions' => $calls->actions,
            'cut_ticks' => $calls->cutTicks,
        ];
        // Also where they are as they were: whoever kept something of these words looks at when they changed.
        $transcript->touch();
    }
}
