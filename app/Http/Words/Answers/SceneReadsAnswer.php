<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** A scene's script joined to its takes. */
final readonly class SceneReadsAnswer
{
    /**
     * @param  list<ScriptLineAnswer>  $lines
     * @param  list<ReadAnswer>  $unwritten  what was said and stands in no line
     * @param  int  $takes  of the scene
     * @param  list<string>  $unheard  takes that have no words yet
     * @param  list<string>  $scenes  of the script, in its order
     */
    public function __construct(
        public string $scene,
        public string $heading,
        public array $scenes,
        #[ListOf(ScriptLineAnswer::class)] public array $lines,
        #[ListOf(ReadAnswer::class)] public array $unwritten,
        public int $takes,
        public array $unheard,
    ) {}
}
