<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Rules;

use Cartella\Core\Rules\Condition;
use Cartella\Core\Rules\InvalidRule;
use Cartella\Core\Rules\Rule;
use Cartella\Core\Rules\Subject;
use Cartella\Core\Rules\SubjectType;
use Cartella\Core\Rules\Test;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RuleTest extends TestCase
{
    /** @return array<string, Subject> */
    private static function subjects(): array
    {
        return [
            'entry' => new Subject(
                'entry',
                'What it is',
                SubjectType::Choice,
                ['is' => 'that is {}', 'is_not' => 'that is not {}'],
                ['take' => 'a take', 'subclip' => 'a subclip'],
            ),
            'notes' => new Subject('notes', 'Notes', SubjectType::Text, [
                'contains' => 'with {} in its notes',
                'lacks' => 'without {} in its notes',
                'blank' => 'with nothing in its notes',
            ]),
            'length' => new Subject('length', 'Length', SubjectType::Length, [
                'least' => 'at least {} s long',
                'most' => 'at most {} s long',
            ]),
            'date' => new Subject('date', 'Date', SubjectType::Date, ['least' => 'shot on or after {}']),
            'cut' => new Subject('cut', 'Cuts', SubjectType::Holder, ['filled' => 'used in a cut', 'blank' => 'not yet in a cut']),
        ];
    }

    /** @param  list<string>  $values */
    private static function one(string $about, string $test, array $values = []): array
    {
        return ['about' => $about, 'test' => $test, 'values' => $values];
    }

    public function test_a_rule_is_said_as_one_sentence(): void
    {
        $rule = Rule::of(
            [
                'join' => 'all',
                'parts' => [
                    self::one('entry', 'is', ['take', 'subclip']),
                    [
                        'join' => 'any',
                        'parts' => [self::one('notes', 'contains', ['gull']), self::one('length', 'least', ['30'])],
                    ],
                    ['join' => 'none', 'parts' => [self::one('cut', 'filled')]],
                ],
            ],
            self::subjects(),
        );
        self::assertSame(
            'Everything that is a take or a subclip, (with gull in its notes, or at least 30 s long), none of: used in a cut',
            $rule->sentence(self::subjects()),
        );
        self::assertEquals($rule, Rule::of(json_decode((string) json_encode($rule), true), self::subjects()), 'as it was kept');
        self::assertSame('Everything', Rule::of(['join' => 'any', 'parts' => []], self::subjects())->sentence(self::subjects()));
    }

    /** @return iterable<string, array{mixed}> */
    public static function faults(): iterable
    {
        $in = static fn(mixed $part): array => ['join' => 'all', 'parts' => [$part]];
        yield 'no rule at all' => ['all'];
        yield 'no joining' => [['parts' => []]];
        yield 'a joining nobody knows' => [['join' => 'most', 'parts' => []]];
        yield 'parts with names' => [['join' => 'all', 'parts' => ['a' => self::one('cut', 'filled')]]];
        yield 'a subject nobody knows' => [$in(self::one('weather', 'is', ['rain']))];
        yield 'a test that the subject does not have' => [$in(self::one('notes', 'starts', ['x']))];
        yield 'a test nobody knows' => [$in(self::one('notes', 'drop table', ['x']))];
        yield 'a choice that is none' => [$in(self::one('entry', 'is', ['weather']))];
        yield 'no value' => [$in(self::one('notes', 'contains', []))];
        yield 'a value that is no text' => [$in(['about' => 'notes', 'test' => 'contains', 'values' => [['x']]])];
        yield 'blanks alone' => [$in(self::one('notes', 'contains', [' ']))];
        yield 'broken text' => [$in(self::one('notes', 'contains', ["\xff"]))];
        yield 'two limits' => [$in(self::one('length', 'least', ['1', '2']))];
        yield 'a length that is none' => [$in(self::one('length', 'least', ['1; drop']))];
        yield 'a day that is none' => [$in(self::one('date', 'least', ['2026-02-30']))];
        yield 'too many conditions' => [['join' => 'all', 'parts' => array_fill(0, 61, self::one('cut', 'filled'))]];
        $deep = self::one('cut', 'filled');
        for ($n = 0; $n < 6; $n++) {
            $deep = ['join' => 'any', 'parts' => [$deep]];
        }
        yield 'too deep' => [$deep];
    }

    #[DataProvider('faults')]
    public function test_what_nobody_can_answer_is_refused_in_words(mixed $json): void
    {
        try {
            Rule::of($json, self::subjects());
            self::fail('It was taken for a rule.');
        } catch (InvalidRule $fault) {
            self::assertMatchesRegularExpression('/\A[A-Z].*\.\z/su', $fault->getMessage());
        }
    }

    public function test_a_kept_condition_that_nobody_can_answer_any_more_is_kept_and_says_so(): void
    {
        $gone = [
            'a field that is gone' => self::one('own:lens', 'is', ['50']),
            'a field that is asked otherwise now' => self::one('notes', 'least', ['50']),
            'a cut that is gone' => self::one('entry', 'is', ['weather']),
        ];
        foreach ($gone as $what => $condition) {
            $rule = Rule::kept(['join' => 'all', 'parts' => [$condition]], self::subjects());
            self::assertSame('Everything of something that is gone', $rule->sentence(self::subjects()), $what);
        }
    }

    /** @return iterable<string, array{SubjectType, Test, list<string>, list<string|int|float|bool>, bool}> */
    public static function meanings(): iterable
    {
        yield 'capitals and accents make no difference' => [SubjectType::Text, Test::Contains, ['mowe'], ['Die MÖWE schreit'], true];
        yield 'one of several words is enough' => [SubjectType::Text, Test::Contains, ['tide', 'gull'], ['a gull'], true];
        yield 'a denial holds for all of the words' => [SubjectType::Text, Test::Lacks, ['tide', 'gull'], ['a gull'], false];
        yield 'nothing lacks everything' => [SubjectType::Text, Test::Lacks, ['tide'], [], true];
        yield 'of a recording over two takes one is enough' => [SubjectType::Slate, Test::Is, ['3A'], ['3', '3a'], true];
        yield 'and for a denial none may be' => [SubjectType::Slate, Test::IsNot, ['3A'], ['3', '3A'], false];
        yield 'a limit is inside' => [SubjectType::Length, Test::Least, ['30'], [30.0], true];
        yield 'nothing has no length' => [SubjectType::Length, Test::Most, ['30'], [], false];
        yield 'numbers are compared as such' => [SubjectType::Number, Test::Least, ['9'], ['10'], true];
        yield 'what is no number is none' => [SubjectType::Number, Test::Most, ['9'], [''], false];
        yield 'the first day counts' => [SubjectType::Date, Test::Least, ['2026-10-05'], ['2026-10-05'], true];
        yield 'spaces are nothing' => [SubjectType::Text, Test::Blank, [], [' '], true];
        yield 'no is not yes' => [SubjectType::YesNo, Test::No, [], [false], true];
    }

    /**
     * @param  list<string>  $values
     * @param  list<string|int|float|bool>  $facts
     */
    #[DataProvider('meanings')]
    public function test_what_each_test_means(SubjectType $type, Test $test, array $values, array $facts, bool $holds): void
    {
        self::assertSame($holds, (new Condition('x', $test, $values))->matches($type, $facts));
    }
}
