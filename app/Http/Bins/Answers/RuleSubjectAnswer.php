<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

use Cartella\Core\Rules\Subject;
use Cartella\Core\Rules\Test;

/** Something that a rule can ask about, and how each question is said. */
final readonly class RuleSubjectAnswer
{
    /**
     * @param  'choice'|'slate'|'text'|'number'|'length'|'date'|'yes_no'|'holder'  $type
     * @param  list<array{test: string, phrase: string, values: bool, several: bool}>  $tests  `{}` stands for the words
     * @param  list<array{value: string, word: string}>  $choices  none where that is open
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $type,
        public array $tests,
        public array $choices,
    ) {}

    public static function of(Subject $subject): self
    {
        return new self(
            $subject->key,
            $subject->label,
            $subject->type->value,
            array_map(
                static fn(Test $test): array => [
                    'test' => $test->value,
                    'phrase' => $subject->phrases[$test->value],
                    'values' => $test->takesValues(),
                    'several' => $test->takesSeveral(),
                ],
                $subject->tests(),
            ),
            array_map(
                static fn(string|int $value, string $word): array => ['value' => (string) $value, 'word' => $word],
                array_keys($subject->choices),
                array_values($subject->choices),
            ),
        );
    }
}
