<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** One demand of a rule: a test of one fact, and the words it is tested by. */
final readonly class Condition
{
    /** @param  list<string>  $values  none for a test that takes none */
    public function __construct(public string $about, public Test $test, public array $values = []) {}

    /**
     * Whether facts pass: the definition of every test, by which the database's answer is checked.
     *
     * @param  list<string|int|float|bool>  $facts  texts; numbers; seconds; days as 2026-10-05; yes and no
     */
    public function matches(SubjectType $type, array $facts): bool
    {
        $test = $this->test->affirmed();
        $isOne = false;
        foreach ($facts as $fact) {
            $isOne = $isOne || $this->passes($type, $test, $fact);
        }

        return $this->test->denies() ? !$isOne : $isOne;
    }

    private function passes(SubjectType $type, Test $test, string|int|float|bool $fact): bool
    {
        if ($test === Test::Yes) {
            return $fact === true;
        }
        $text = is_bool($fact) ? '' : (string) $fact;
        if ($test === Test::Filled) {
            return trim($text) !== '';
        }
        $isNumber = in_array($type, [SubjectType::Number, SubjectType::Length], true);
        foreach ($this->values as $value) {
            $passes = match ($test) {
                Test::Least => $isNumber ? is_numeric($text) && (float) $text >= (float) $value : $text !== '' && $text >= $value,
                Test::Most => $isNumber ? is_numeric($text) && (float) $text <= (float) $value : $text !== '' && $text <= $value,
                Test::Contains => str_contains(self::fold($text), self::fold($value)),
                Test::Starts => str_starts_with(self::fold($text), self::fold($value)),
                default => $isNumber ? is_numeric($text) && (float) $text === (float) $value : self::fold($text) === self::fold($value),
            };
            if ($passes) {
                return true;
            }
        }

        return false;
    }

    /** Capitals, accents and spaces at the end make no difference: `Möwe` is found by `mowe`. */
    public static function fold(string $text): string
    {
        $plain = \Normalizer::normalize($text, \Normalizer::FORM_D);

        return mb_strtolower((string) preg_replace('/\p{Mn}+/u', '', rtrim($plain === false ? $text : $plain)));
    }
}
