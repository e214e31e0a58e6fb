<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Slate\Exception\InvalidPattern;

/**
 * Builds names from fields: `{setup}-{take:2} {device}`. `{take:2}` and `{n:3}` fill numbers up with zeros, `{n}` counts,
 * `{description:20}` keeps the first 20 letters; what stands in `[ ]` goes where one of its fields is empty.
 */
final readonly class NamePattern
{
    /** Fields that are none of the take. */
    private const OTHERS = ['device', 'roll', 'day', 'date', 'original', 'n'];

    /** Ready-made ones for a production that has none of its own. */
    public const READY = ['{setup}-{take:2} {device}', '{device}_{setup}_{take:2}', '{day}_{setup}-{take:2}_{device}', '{original}'];

    private const NAME_BYTES = 200;

    /** What common file systems refuse in a name. */
    private const REFUSED = '/[\x00-\x1F\x7F<>:"\/\\\\|?*]/';

    private const RESERVED = '/\A(?:con|prn|aux|nul|com\d|lpt\d)(?:\.|\z)/i';

    private function __construct(public string $text) {}

    /**
     * @param  TakeFields|null  $fields  those of the production
     *
     * @throws InvalidPattern
     */
    public static function parse(string $text, ?TakeFields $fields = null): self
    {
        if (trim($text) === '' || strlen($text) > 160) {
            throw InvalidPattern::name($text, 'it has to have 1 to 160 characters');
        }
        $known = [...self::OTHERS, ...array_keys(($fields ?? TakeFields::standard())->byName())];
        preg_match_all('/\{([^{}]*)\}/', $text, $found);
        if ($found[1] === []) {
            throw InvalidPattern::name($text, 'it has no field, so all names would be the same');
        }
        foreach ($found[1] as $field) {
            if (
                preg_match('/\A(?<name>[a-z][a-z0-9]*)(?::(?<width>[1-9]\d?))?\z/', $field, $part) !== 1 ||
                !in_array($part['name'], $known, true)
            ) {
                throw InvalidPattern::name($text, sprintf('{%s} is not a field', InvalidPattern::quote($field)));
            }
        }
        $bare = (string) preg_replace('/\{[^{}]*\}/', '', $text);
        if (strpbrk($bare, '{}') !== false) {
            throw InvalidPattern::name($text, 'a brace is open');
        }
        if (preg_match('/\A[^\[\]]*(?:\[[^\[\]]*\][^\[\]]*)*\z/', $bare) !== 1) {
            throw InvalidPattern::name($text, 'its brackets do not pair');
        }

        return new self($text);
    }

    /**
     * @param  array<string, string|int|null>  $values  by field; `n` is the counter's own value
     * @return array{name: string, problems: list<string>}
     */
    public function expand(array $values): array
    {
        $empty = [];
        $fill = static function (string $text, bool $mayMiss) use ($values, &$empty): string {
            $missing = false;
            $filled = (string) preg_replace_callback(
                '/\{([a-z][a-z0-9]*)(?::(\d+))?\}/',
                static function (array $part) use ($values, $mayMiss, &$empty, &$missing): string {
                    $value = trim((string) ($values[$part[1]] ?? ''));
                    if ($value === '') {
                        $missing = true;
                        $mayMiss || ($empty[$part[1]] = true);
                    }
                    $width = (int) ($part[2] ?? 0);

                    return match (true) {
                        $width === 0 => $value,
                        preg_match('/\A(\d+)([a-z]?)\z/', $value, $number) === 1 => str_pad($number[1], $width, '0', STR_PAD_LEFT) .
                            $number[2],
                        default => rtrim(mb_substr($value, 0, $width)),
                    };
                },
                $text,
            );

            return $mayMiss && $missing ? '' : $filled;
        };
        // In one pass, so that what a value says is never read as a field.
        $name = trim(
            (string) preg_replace_callback(
                '/\[([^\[\]]*)\]|[^\[]+/',
                static fn(array $part): string => isset($part[1]) ? $fill($part[1], true) : $fill($part[0], false),
                $this->text,
            ),
        );
        $problems = $empty === [] ? [] : [sprintf('%s %s empty', implode(' and ', array_keys($empty)), count($empty) === 1 ? 'is' : 'are')];
        if (preg_match(self::REFUSED, $name, $found) === 1) {
            $problems[] = ctype_cntrl($found[0]) ? 'it has a control character' : "file systems refuse {$found[0]}";
        }
        if ($name === '' || str_ends_with($name, '.') || preg_match(self::RESERVED, $name) === 1) {
            $problems[] = $name === '' ? 'nothing is left of it' : 'file systems refuse such a name';
        }
        if (strlen($name) > self::NAME_BYTES) {
            $problems[] = 'it is longer than ' . self::NAME_BYTES . ' bytes';
        }

        return ['name' => $name, 'problems' => $problems];
    }

    /**
     * The names of a selection in its order, with what stands against each: empty fields, refused characters, and the
     * same name twice (large and small letters and Unicode forms are the same to a file system).
     *
     * @param  iterable<int|string, array<string, string|int|null>>  $rows  the fields of each, by its id
     * @param  list<string>|\Closure(): list<string>  $taken  names outside the selection that are in use beside it; a closure is
     *     asked when all rows have been read
     * @return array<int|string, array{name: string, problems: list<string>}>
     */
    public function preview(iterable $rows, array|\Closure $taken = [], int $start = 1, int $step = 1): array
    {
        $names = $count = [];
        $n = $start;
        foreach ($rows as $id => $values) {
            $names[$id] = $this->expand($values + ['n' => $n]);
            $n += $step;
        }
        $fold = static fn(string $name): string => mb_strtolower(\Normalizer::normalize(mb_scrub($name), \Normalizer::FORM_C) ?: $name);
        $used = array_fill_keys(array_map($fold, $taken instanceof \Closure ? $taken() : $taken), true);
        foreach ($names as $one) {
            $count[$fold($one['name'])] = ($count[$fold($one['name'])] ?? 0) + 1;
        }
        foreach ($names as $id => $one) {
            $folded = $fold($one['name']);
            if ($one['name'] !== '' && $count[$folded] > 1) {
                $names[$id]['problems'][] = sprintf('%d of the selection would have this name', $count[$folded]);
            } elseif (isset($used[$folded])) {
                $names[$id]['problems'][] = 'another has this name already';
            }
        }

        return $names;
    }
}
