<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Slate\SlateStyle;

/**
 * What may be said in a clip: lines of its scene first, those of the others after them, names, and what the floor calls out.
 *
 * A language model and a dictionary are made of it for each clip ({@see LanguageModel}, {@see Pronunciations}).
 */
final readonly class ScriptModel
{
    /** How much more likely the lines of the scene are than those of its neighbours and of the rest. */
    private const SCENE = 6.0;

    private const NEIGHBOUR = 1.0;

    private const REST = 0.3;

    private const NAME = 0.05;

    /** Share of all that is said that is called out by the floor. */
    private const CALLS = 0.05;

    /** Lines of one model; a long script is longer than a clip. */
    private const MOST_LINES = 6000;

    /**
     * @param  list<ScriptLine>  $scene  the lines that are looked for
     * @param  list<ScriptLine>  $near  of the scenes before and after it
     * @param  list<ScriptLine>  $rest
     * @param  list<string>  $names  of characters and places
     * @param  bool  $isAll  whether nothing else is said: neither calls nor free speech
     */
    public function __construct(
        public array $scene,
        public array $near = [],
        public array $rest = [],
        public array $names = [],
        public SlateStyle $style = SlateStyle::Letter,
        public bool $isAll = false,
    ) {}

    /**
     * @param  list<ScriptLine>  $lines  of the whole script, in its order
     * @param  string|null  $scene  null where nobody knows: then all of it is equally likely
     */
    public static function ofScript(array $lines, ?string $scene, SlateStyle $style = SlateStyle::Letter): self
    {
        $order = array_values(array_unique(array_column($lines, 'scene')));
        $at = $scene === null ? false : array_search($scene, $order, true);
        $names = array_values(array_unique(array_column($lines, 'character')));
        if ($at === false) {
            return new self($lines, [], [], $names, $style);
        }
        $parts = ['scene' => [], 'near' => [], 'rest' => []];
        foreach ($lines as $line) {
            $distance = abs((int) array_search($line->scene, $order, true) - $at);
            $parts[$distance === 0 ? 'scene' : ($distance === 1 ? 'near' : 'rest')][] = $line;
        }

        return new self($parts['scene'], $parts['near'], $parts['rest'], $names, $style);
    }

    /** A text that is known to be said: it and nothing else. */
    public static function ofText(string $text): self
    {
        $lines = [];
        foreach (preg_split('/\n+|(?<=[.!?…])\s+/u', $text) ?: [] as $number => $line) {
            if (trim($line) !== '') {
                $lines[] = new ScriptLine('', $number, '', $line);
            }
        }

        return new self($lines, isAll: true);
    }

    public function hasLines(): bool
    {
        return $this->scene !== [] || $this->near !== [] || $this->rest !== [];
    }

    /** @return list<string> of the script */
    public function scenes(): array
    {
        return array_values(
            array_unique(
                array_filter(
                    array_column([...$this->scene, ...$this->near, ...$this->rest], 'scene'),
                    static fn(string $one): bool => $one !== '',
                ),
            ),
        );
    }

    public function languageModel(): LanguageModel
    {
        $model = new LanguageModel();
        $left = self::MOST_LINES;
        foreach ([[$this->scene, self::SCENE], [$this->near, self::NEIGHBOUR], [$this->rest, self::REST]] as [$lines, $weight]) {
            $before = [];
            foreach (array_slice($lines, 0, $left) as $line) {
                $said = self::spoken($line->text);
                $model->learn($said, $weight);
                // A line may begin in the middle of a stretch, where the one before it ends.
                $model->learn([...array_slice($before, -2), ...array_slice($said, 0, 3)], $weight / 3);
                $before = $said;
                $left--;
            }
        }
        foreach ($this->names as $name) {
            $model->learn(self::spoken($name), self::NAME);
        }
        if (!$this->isAll) {
            $slates = SpokenSlate::calls($this->scenes(), $this->style);
            $others = SpokenSlate::otherCalls();
            $share = (self::CALLS * max(50.0, $model->weight())) / 2;
            foreach ([$slates, $others] as $calls) {
                $words = array_sum(array_map(count(...), $calls));
                foreach ($calls as $call) {
                    $model->learn($call, $share / $words);
                }
            }
        }

        return $model;
    }

    /** @return list<string> */
    private static function spoken(string $text): array
    {
        return array_merge([], ...array_map(SpokenText::spoken(...), SpokenText::written($text)));
    }
}
