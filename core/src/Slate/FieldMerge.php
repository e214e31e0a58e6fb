<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Fields\TakeStatus;

/**
 * Which of several sources a take's field has its value from: a person, then script notes, then a recorder's iXML, then
 * names. Notes and keywords add up; of every other field the more trusted source is kept, and who differs is asked about.
 */
final class FieldMerge
{
    public const SOURCES = ['person', 'script', 'ixml', 'name'];

    /**
     * The value that a field takes when a source says one; null when it stays as it is.
     *
     * @param  string|bool  $now  the field's value; `''`, `none` and false say nothing
     * @param  string|null  $by  the source that it has its value from; null, where nobody knows, is as good as a person,
     *                           and `carried` from the take before less than any
     */
    public static function decide(string $field, string|bool $now, ?string $by, string|bool $said, string $source): string|bool|null
    {
        if ($said === $now || self::saysNothing($said)) {
            return null;
        }
        if (self::saysNothing($now)) {
            // What a person has emptied stays empty.
            return $by === 'person' && $source !== 'person' ? null : $said;
        }
        $glue = TakeFields::glue($field);
        if ($glue !== null) {
            return mb_stripos((string) $now, (string) $said) === false ? $now . $glue . $said : null;
        }

        return self::rank($source) < self::rank($by) || ($source === $by && $source !== 'person') ? $said : null;
    }

    /**
     * The value that a field takes when a newer version of what a source said is read: its older words give way to the
     * new ones, and what others said beside them stays. Null when it stays as it is.
     *
     * @param  string|null  $by  the source that the field has its value from
     * @param  string|bool  $was  what the source said before
     * @param  string|bool  $said  what it says now; nothing, as `''`, takes its older words away
     */
    public static function correct(
        string $field,
        string|bool $now,
        ?string $by,
        string|bool $was,
        string|bool $said,
        string $source,
    ): string|bool|null {
        if ($was === $said) {
            return null;
        }
        $glue = TakeFields::glue($field);
        if ($glue !== null && is_string($now) && is_string($was) && is_string($said)) {
            $parts = self::around($now, $was, $glue);
            if ($parts === null) {
                return self::decide($field, $now, $by, $said, $source);
            }
            $isThere = $said !== '' && mb_stripos(implode("\0", $parts), $said) !== false;

            return implode(
                $glue,
                array_filter([$parts[0], $isThere ? '' : $said, $parts[1]], static fn(string $part): bool => $part !== ''),
            );
        }
        if ($by === $source && self::plain($now) === self::plain($was)) {
            return $said;
        }

        return self::decide($field, $now, $by, $said, $source);
    }

    /**
     * What stands before one source's words and after them. They are found where they stand by themselves only: the same
     * letters within another's sentence are the other's.
     *
     * @return array{string, string}|null null where they do not stand in the text
     */
    private static function around(string $text, string $words, string $glue): ?array
    {
        if ($words === '') {
            return null;
        }
        for ($at = -1; ($at = strpos($text, $words, $at + 1)) !== false; ) {
            [$before, $after] = [substr($text, 0, $at), substr($text, $at + strlen($words))];
            if (($before === '' || str_ends_with($before, $glue)) && ($after === '' || str_starts_with($after, $glue))) {
                return [rtrim($before, $glue), ltrim($after, $glue)];
            }
        }

        return null;
    }

    /**
     * Whether what a source said is still to be asked about: it differs, and no person has decided since.
     *
     * @param  int  $saidAt  seconds, as is `$setAt`; when the source said it, and when the field got its value
     */
    public static function isOpen(string $field, string|bool $now, ?string $by, ?int $setAt, string|bool $said, int $saidAt): bool
    {
        return TakeFields::glue($field) === null &&
            self::plain($said) !== self::plain($now) &&
            !self::saysNothing($said) &&
            !($by === 'person' && $setAt !== null && $setAt >= $saidAt);
    }

    public static function saysNothing(string|bool $value): bool
    {
        return $value === '' || $value === TakeStatus::None->value || $value === false;
    }

    /** Case and spaces make no difference worth a question. */
    private static function plain(string|bool $value): string
    {
        return is_bool($value) ? ($value ? '1' : '') : mb_strtolower(trim((string) preg_replace('/\s+/u', ' ', $value)));
    }

    private static function rank(?string $source): int
    {
        $at = array_search($source ?? 'person', self::SOURCES, true);

        return $at === false ? count(self::SOURCES) : $at;
    }
}
