<?php

declare(strict_types=1);

namespace App\Domain\Undo;

/**
 * What going from one state of a row to another means for the row as it is now: the values to write, and the columns that
 * stay because somebody changed them since. A pure function of the three.
 */
final readonly class RowChange
{
    /**
     * @param  array<string, mixed>  $write
     * @param  list<string>  $stayed
     */
    private function __construct(public array $write, public array $stayed) {}

    /**
     * @param  array<string, mixed>  $from  what the step left, only the columns that it changed
     * @param  array<string, mixed>  $to
     * @param  array<string, mixed>  $now  the whole row
     * @param  array{together: list<list<string>>, byKey: list<string>, derived: list<string>, keyed?: list<string>}  $rules
     */
    public static function of(array $from, array $to, array $now, array $rules): self
    {
        $differs = $stayed = [];
        $keyed = $rules['keyed'] ?? [];
        $write = $to;
        foreach ($from as $column => $value) {
            if (in_array($column, $rules['derived'], true)) {
                continue;
            }
            if (in_array($column, $keyed, true)) {
                // Each of its keys is a value of its own.
                $merged = self::mergeKeys($value, $to[$column] ?? null, $now[$column] ?? null);
                if (self::same($now[$column] ?? null, $merged)) {
                    $stayed[] = $column;
                    unset($write[$column]);
                } else {
                    $write[$column] = $merged;
                }
            } elseif (in_array($column, $rules['byKey'], true)) {
                $write[$column] = self::mergeKeys($value, $to[$column] ?? null, $now[$column] ?? null);
            } elseif (!array_key_exists($column, $now) || !self::same($now[$column], $value)) {
                $differs[] = $column;
            }
        }
        foreach ($rules['together'] as $group) {
            if (array_intersect($group, $differs) !== []) {
                $differs = array_values(array_unique([...$differs, ...array_intersect($group, array_keys($from))]));
            }
        }
        $write = array_diff_key($write, array_flip($differs));

        return new self(self::isOnlyDerived($write, $rules) ? [] : $write, [...$differs, ...$stayed]);
    }

    /**
     * @param  array<string, mixed>  $write
     * @param  array{byKey: list<string>, derived: list<string>}  $rules
     */
    private static function isOnlyDerived(array $write, array $rules): bool
    {
        return array_diff(array_keys($write), $rules['derived'], $rules['byKey']) === [];
    }

    /** Each key goes back where it is as the step left it; keys that others set since stay. */
    private static function mergeKeys(mixed $from, mixed $to, mixed $now): ?string
    {
        [$from, $to, $now] = array_map(
            static fn(mixed $text): array => is_array($text) ? $text : (json_decode((string) $text, true) ?: []),
            [$from, $to, $now],
        );
        foreach (array_keys($from + $to) as $key) {
            if (($from[$key] ?? null) === ($to[$key] ?? null) || ($now[$key] ?? null) != ($from[$key] ?? null)) {
                continue;
            }
            if (array_key_exists($key, $to)) {
                $now[$key] = $to[$key];
            } else {
                unset($now[$key]);
            }
        }

        return $now === [] ? null : json_encode($now, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }

    /** The database gives numbers, truth values, dates and JSON back as it stores them. */
    public static function same(mixed $stored, mixed $kept): bool
    {
        if (is_bool($kept)) {
            $kept = (int) $kept;
        }
        if ($stored === null || $kept === null) {
            return $stored === $kept;
        }
        if (is_array($kept) || (is_string($stored) && in_array($stored[0] ?? '', ['[', '{'], true))) {
            return json_decode((string) $stored, true) == (is_array($kept) ? $kept : json_decode((string) $kept, true));
        }

        // A column of days has no time of day.
        if (is_string($stored) && preg_match('/\A\d{4}-\d\d-\d\d\z/', $stored) === 1) {
            $kept = substr((string) $kept, 0, 10);
        }

        return is_numeric($stored) && is_numeric($kept) ? (float) $stored === (float) $kept : (string) $stored === (string) $kept;
    }
}
