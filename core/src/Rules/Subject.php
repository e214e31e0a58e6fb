<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** Something that a rule can ask about: what it is called, what can be asked of it, and how each of that is said in a sentence. */
final readonly class Subject
{
    /**
     * @param  array<string, string>  $phrases  by test; `{}` stands for the words that can be changed
     * @param  array<string, string>  $choices  what can be chosen, by value; none where that is open
     */
    public function __construct(
        public string $key,
        public string $label,
        public SubjectType $type,
        public array $phrases,
        public array $choices = [],
    ) {}

    /** @return list<Test> */
    public function tests(): array
    {
        return array_values(array_filter($this->type->tests(), fn(Test $test): bool => isset($this->phrases[$test->value])));
    }

    /** What a value is called. */
    public function word(string $value): string
    {
        return $this->choices[$value] ?? $value;
    }

    /** Whether a value can be asked for. */
    public function accepts(string $value): bool
    {
        return match ($this->type) {
            SubjectType::Choice, SubjectType::Holder => $this->choices === [] || isset($this->choices[$value]),
            SubjectType::Number => preg_match('/\A-?\d{1,12}(?:\.\d{1,6})?\z/', $value) === 1,
            SubjectType::Length => preg_match('/\A\d{1,7}(?:\.\d{1,3})?\z/', $value) === 1,
            SubjectType::Date => preg_match('/\A(\d{4})-(\d\d)-(\d\d)\z/', $value, $part) === 1 &&
                checkdate((int) $part[2], (int) $part[3], (int) $part[1]),
            SubjectType::YesNo => false,
            default => trim($value) !== '' && mb_strlen($value) <= Rule::LONGEST_VALUE && mb_check_encoding($value, 'UTF-8'),
        };
    }
}
