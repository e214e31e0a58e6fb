<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Support\Problem;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Slate\Slate;

/** The changes of a take as a page sends them, checked field by field: a range of 500 rows is checked in a few milliseconds. */
final class TakeChanges
{
    /**
     * @param  mixed  $sent  by field, each with `was` and `now`; `slate` stands for setup, take and part,
     *     its `was` the three and its `now` as it was typed
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
            if ($field === 'slate') {
                $changes += self::slate($change);

                continue;
            }
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

    /**
     * A slate that was typed over a take's own is its setup, its number and its letter.
     *
     * @return array<string, array{was: mixed, now: mixed}>
     */
    private static function slate(mixed $change): array
    {
        $text = is_array($change) && is_string($change['now'] ?? null) ? $change['now'] : '';
        $was = is_array($change) && is_array($change['was'] ?? null) ? $change['was'] : throw self::refused('slate');
        $now =
            Slate::typed($text) ??
            throw Problem::refused(
                'slate.unreadable',
                sprintf('"%s" is not a slate.', mb_substr(mb_scrub($text), 0, 40)),
                'Write setup and take, such as 3B/1.',
            );

        return [
            'setup' => ['was' => $was['setup'] ?? null, 'now' => $now->setup],
            'take' => ['was' => $was['take'] ?? null, 'now' => $now->take],
            'part' => ['was' => $was['part'] ?? null, 'now' => $now->part],
        ];
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
