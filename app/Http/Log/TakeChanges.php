<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Support\Problem;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Log\LogLine;
use Cartella\Core\Slate\SlateStyle;

/** The changes of a take as a page sends them, checked field by field: a range of 500 rows is checked in a few milliseconds. */
final class TakeChanges
{
    /**
     * @param  mixed  $sent  by field, each with `was` and `now`; `slate` stands for setup, take and part
     * @return array<string, array{was: mixed, now: mixed}>
     *
     * @throws Problem naming the field that cannot be
     */
    public static function of(mixed $sent, TakeFields $fields, SlateStyle $style): array
    {
        if (!is_array($sent) || $sent === []) {
            throw self::refused('changes');
        }
        $changes = [];
        foreach ($sent as $field => $change) {
            if ($field === 'slate') {
                $changes += self::slate($change, $style);

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
     * A slate that was typed as one, such as `3B/1`, is the setup, the take and its letter.
     *
     * @return array<string, array{was: mixed, now: mixed}>
     */
    private static function slate(mixed $change, SlateStyle $style): array
    {
        $slates = [];
        foreach (['was', 'now'] as $side) {
            $text = $change[$side] ?? null;
            $line = is_string($text) ? LogLine::parse($text, $style) : null;
            if ($line?->slate === null || !$line->namesSlate || $line->fields !== []) {
                throw Problem::refused(
                    'slate.unreadable',
                    sprintf('"%s" is not a slate.', is_string($text) ? mb_substr(mb_scrub($text), 0, 40) : ''),
                    'Write setup and take, such as 3B/1.',
                );
            }
            $slates[$side] = $line->slate;
        }

        return [
            'setup' => ['was' => $slates['was']->setup, 'now' => $slates['now']->setup],
            'take' => ['was' => $slates['was']->take, 'now' => $slates['now']->take],
            'part' => ['was' => $slates['was']->part, 'now' => $slates['now']->part],
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
