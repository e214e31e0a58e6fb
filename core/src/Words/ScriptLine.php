<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/** One speech of a script: whose, what, and in which scene. */
final readonly class ScriptLine
{
    /** @var list<string> its words as they are heard: what they are compared by, stretch after stretch */
    public array $keys;

    /** @param  int  $number  within its scene, from 0 */
    public function __construct(public string $scene, public int $number, public string $character, public string $text)
    {
        $this->keys = array_map(SpokenText::key(...), $this->words());
    }

    /** @return list<string> words as they are written */
    public function words(): array
    {
        return SpokenText::written($this->text);
    }
}
