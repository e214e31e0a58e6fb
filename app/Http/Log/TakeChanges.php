<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Log\EditTake;
use App\Support\Problem;

/** The changes of a take as a page sends them, checked field by field: a range of 500 rows is checked in a few milliseconds. */
final class TakeChanges
{
    private const LONGEST = ['scene' => 20, 'setup' => 24, 'description' => 300, 'size' => 30, 'keywords' => 300, 'notes' => 4000];

    /**
     * @param  mixed  $sent  by field, each with `was` and `now`
     * @return array<string, array{was: mixed, now: mixed}>
     *
     * @throws Problem naming the field that cannot be
     */
    public static function of(mixed $sent): array
    {
        if (!is_array($sent) || $sent === []) {
            throw self::refused('changes');
        }
        $changes = [];
        foreach ($sent as $field => $change) {
            if (!in_array($field, EditTake::FIELDS, true) || !is_array($change) || array_diff(array_keys($change), ['was', 'now']) !== []) {
                throw self::refused((string) $field);
            }
            $changes[$field] = ['was' => $change['was'] ?? null, 'now' => self::value($field, $change['now'] ?? null)];
        }

        return $changes;
    }

    private static function value(string $field, mixed $now): mixed
    {
        $isGood = match (true) {
            $field === 'take' => is_int($now) && $now >= 1 && $now <= 999,
            $field === 'part' => $now === null || (is_string($now) && preg_match('/\A[a-hj-np-z]?\z/', $now) === 1),
            $field === 'status' => in_array($now, ['none', 'circled', 'hold', 'ng'], true),
            $field === 'absent_devices' => is_array($now) &&
                array_is_list($now) &&
                count($now) <= 50 &&
                array_filter($now, static fn(mixed $one): bool => !is_string($one) || strlen($one) > 12) === [],
            $field === 'setup', $field === 'scene' => is_string($now) && trim($now) !== '' && strlen($now) <= self::LONGEST[$field],
            str_starts_with($field, 'is_') => is_bool($now),
            default => $now === null || (is_string($now) && mb_check_encoding($now, 'UTF-8') && mb_strlen($now) <= self::LONGEST[$field]),
        };

        return $isGood ? $now : throw self::refused($field);
    }

    private static function refused(string $field): Problem
    {
        return Problem::refused(
            'input.invalid',
            sprintf('%s cannot be that.', ucfirst(strtr(mb_substr(mb_scrub($field), 0, 30), ['is_' => '', '_' => ' ']))),
            'Correct the value, or load the page again.',
            ['field' => mb_substr(mb_scrub($field), 0, 30)],
        );
    }
}
