<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/**
 * What a rule bin holds, as a value: groups of conditions, nested. Written in JSON as `{"join": "all", "parts": […]}`, a condition as
 * `{"about": "status", "test": "is", "values": ["circled"]}`. Durations are seconds, days are written as in ISO 8601.
 */
final readonly class Rule implements \JsonSerializable
{
    /** Groups within groups. */
    public const DEEPEST = 5;

    public const MOST_CONDITIONS = 60;

    public const MOST_VALUES = 60;

    public const LONGEST_VALUE = 200;

    /** What a condition of a kept rule is about that nobody can answer any more. */
    private const GONE = '';

    public function __construct(public Group $group) {}

    /**
     * @param  array<string, Subject>  $subjects  by key
     *
     * @throws InvalidRule if it is no rule, is too large, or asks something that its subject does not answer
     */
    public static function of(mixed $json, array $subjects): self
    {
        $count = 0;

        return new self(self::group($json, $subjects, 1, $count, false));
    }

    /**
     * A rule that was found good when it was kept; what it names may be gone since, or be asked otherwise: such a condition holds for
     * nothing.
     *
     * @param  array<string, Subject>  $subjects  by key
     *
     * @throws InvalidRule if it is no rule
     */
    public static function kept(mixed $json, array $subjects): self
    {
        $count = 0;

        return new self(self::group($json, $subjects, 1, $count, true));
    }

    /** @param  callable(string): array{SubjectType, list<string|int|float|bool>}  $facts  of something, by the subject's key */
    public function matches(callable $facts): bool
    {
        return $this->group->matches($facts);
    }

    /** @return list<Condition> all of them, whatever group they are in */
    public function conditions(): array
    {
        return self::flat($this->group);
    }

    /**
     * The rule as one sentence: *Everything that is a synced take, is circled, not yet in a cut*.
     *
     * @param  array<string, Subject>  $subjects  by key
     */
    public function sentence(array $subjects): string
    {
        $said = self::say($this->group, $subjects);

        return $said === '' ? 'Everything' : "Everything $said";
    }

    /** @return array{join: string, parts: list<mixed>} */
    public function jsonSerialize(): array
    {
        return self::write($this->group);
    }

    /** @param  array<string, Subject>  $subjects */
    private static function group(mixed $json, array $subjects, int $depth, int &$count, bool $isKept): Group
    {
        $joining = is_array($json) && is_string($json['join'] ?? null) ? Joining::tryFrom($json['join']) : null;
        if ($joining === null || !is_array($json['parts'] ?? null) || !array_is_list($json['parts'])) {
            throw InvalidRule::because('That is no rule.');
        }
        if ($depth > self::DEEPEST) {
            throw InvalidRule::because(sprintf('Groups lie within groups at most %d deep.', self::DEEPEST));
        }
        $parts = [];
        foreach ($json['parts'] as $part) {
            if (++$count > self::MOST_CONDITIONS) {
                throw InvalidRule::because(sprintf('A rule has at most %d conditions.', self::MOST_CONDITIONS));
            }
            $parts[] =
                is_array($part) && array_key_exists('join', $part)
                    ? self::group($part, $subjects, $depth + 1, $count, $isKept)
                    : ($isKept
                        ? self::keptCondition($part, $subjects)
                        : self::condition($part, $subjects));
        }

        return new Group($joining, $parts);
    }

    /** @param  array<string, Subject>  $subjects */
    private static function keptCondition(mixed $json, array $subjects): Condition
    {
        try {
            return self::condition($json, $subjects);
        } catch (InvalidRule) {
            return new Condition(self::GONE, Test::Is);
        }
    }

    /** @param  array<string, Subject>  $subjects */
    private static function condition(mixed $json, array $subjects): Condition
    {
        $subject = is_array($json) && is_string($json['about'] ?? null) ? $subjects[$json['about']] ?? null : null;
        if ($subject === null) {
            throw InvalidRule::because('A condition asks about something that is not known here.');
        }
        $test = is_string($json['test'] ?? null) ? Test::tryFrom($json['test']) : null;
        if ($test === null || !in_array($test, $subject->tests(), true)) {
            throw InvalidRule::because("That cannot be asked of: $subject->label.");
        }
        if (!$test->takesValues()) {
            return new Condition($subject->key, $test);
        }
        $values = $json['values'] ?? null;
        if (!is_array($values) || !array_is_list($values) || $values === []) {
            throw InvalidRule::because("$subject->label: choose or write something.");
        }
        if (count($values) > ($test->takesSeveral() ? self::MOST_VALUES : 1)) {
            throw InvalidRule::because("$subject->label: too many at once.");
        }
        foreach ($values as $value) {
            if (!is_string($value) || !$subject->accepts($value)) {
                throw InvalidRule::because(
                    sprintf('%s cannot be "%s".', $subject->label, is_string($value) ? mb_substr(mb_scrub($value), 0, 40) : '…'),
                );
            }
        }

        return new Condition($subject->key, $test, array_values(array_unique($values)));
    }

    /** @return list<Condition> */
    private static function flat(Group $group): array
    {
        $conditions = [];
        foreach ($group->parts as $part) {
            array_push($conditions, ...$part instanceof Group ? self::flat($part) : [$part]);
        }

        return $conditions;
    }

    /** @param  array<string, Subject>  $subjects */
    private static function say(Group $group, array $subjects): string
    {
        $said = [];
        foreach ($group->parts as $part) {
            $words = $part instanceof Group ? self::say($part, $subjects) : self::phrase($part, $subjects[$part->about] ?? null);
            if ($words !== '') {
                $said[] = $part instanceof Group && count($part->parts) > 1 ? "($words)" : $words;
            }
        }

        return match ($group->joining) {
            Joining::All => implode(', ', $said),
            Joining::Any => implode(', or ', $said),
            Joining::None => $said === [] ? '' : 'none of: ' . implode('; ', $said),
        };
    }

    private static function phrase(Condition $condition, ?Subject $subject): string
    {
        if ($subject === null) {
            return 'of something that is gone';
        }
        $words = implode(' or ', array_map($subject->word(...), $condition->values));

        return str_replace('{}', $words, $subject->phrases[$condition->test->value] ?? '{}');
    }

    /** @return array{join: string, parts: list<mixed>} */
    private static function write(Group $group): array
    {
        return [
            'join' => $group->joining->value,
            'parts' => array_map(
                static fn(Condition|Group $part): array => $part instanceof Group
                    ? self::write($part)
                    : ['about' => $part->about, 'test' => $part->test->value, 'values' => $part->values],
                $group->parts,
            ),
        ];
    }
}
