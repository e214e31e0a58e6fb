<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/** What was said in one sound, in order, and who found it. */
final readonly class Transcript
{
    /** Ticks of quiet after which a new paragraph begins, and words that one has at most. */
    private const PAUSE = 705_600_000;

    private const LONGEST = 60;

    /**
     * @param  list<Word>  $words  in the order in which they begin
     * @param  string  $model  `script`, `general`, `aligned`, `cues` or what a service calls it
     */
    public function __construct(public array $words, public string $engine = '', public string $model = '') {}

    /**
     * The words as they are read: a new paragraph where somebody else speaks, or nobody does for a second.
     *
     * @return list<non-empty-list<Word>>
     */
    public function paragraphs(): array
    {
        $paragraphs = [];
        $open = [];
        foreach ($this->words as $word) {
            $last = end($open);
            $isNew =
                $last !== false &&
                ($word->speaker !== $last->speaker ||
                    $word->startTicks - $last->endTicks >= self::PAUSE ||
                    (count($open) >= self::LONGEST && preg_match('/[.!?…]["”’)]?\z/u', $last->text) === 1) ||
                    count($open) >= 2 * self::LONGEST);
            if ($isNew) {
                $paragraphs[] = $open;
                $open = [];
            }
            $open[] = $word;
        }

        return $open === [] ? $paragraphs : [...$paragraphs, $open];
    }

    /** Words, one after the other, with a line for each paragraph. */
    public function text(): string
    {
        $lines = [];
        foreach ($this->paragraphs() as $words) {
            $speaker = $words[0]->speaker;
            $lines[] = ($speaker === null ? '' : "$speaker: ") . implode(' ', array_column($words, 'text'));
        }

        return implode("\n", $lines) . ($lines === [] ? '' : "\n");
    }

    /** @return array{words: list<array<string, mixed>>, engine: string, model: string} */
    public function toArray(): array
    {
        return [
            'words' => array_map(static fn(Word $word): array => $word->toArray(), $this->words),
            'engine' => $this->engine,
            'model' => $this->model,
        ];
    }
}
