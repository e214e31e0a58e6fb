<?php

declare(strict_types=1);

namespace Cartella\Core\Fields;

use Cartella\Core\Log\ShotSize;

/**
 * Everything that is known of one field of a take: what it is called, what it holds, how sources merge. Values are text,
 * except yes and no (bool), a take's number (int) and devices (list of letters); `''`, `none` and false say nothing.
 */
final readonly class Field
{
    /** Longest text of a field that a production added. */
    public const OWN_LIMIT = 300;

    private const YES = ['yes', 'y', 'x', '1', 'true', '✓', '*', 'ja'];

    private const NO = ['no', 'n', '0', 'false', '-', '–', ''];

    /**
     * @param  string  $key  the column, or `own:` and a name where a production added it
     * @param  string  $name  in name patterns; small letters and digits
     * @param  string  $label  what people call it
     * @param  int  $limit  characters of text
     * @param  list<string>  $headings  of columns in foreign tables, in small letters
     * @param  list<string>  $choices
     * @param  bool  $isSaid  whether script notes, recorders and names can speak of it too, and not only a person
     * @param  string|null  $glue  where every source adds to it, what stands between; null where one value stands
     */
    public function __construct(
        public string $key,
        public string $name,
        public FieldType $type,
        public string $label,
        public int $limit = 0,
        public array $headings = [],
        public array $choices = [],
        public bool $isSaid = true,
        public ?string $glue = null,
    ) {}

    /**
     * A field that a production adds for itself; a column that is called as it is brings its values in.
     *
     * @param  list<string>  $choices
     */
    public static function own(string $name, FieldType $type, string $label, array $choices = []): self
    {
        return new self("own:$name", $name, $type, $label, self::OWN_LIMIT, [mb_strtolower($label), $name], $choices);
    }

    public function isOwn(): bool
    {
        return str_starts_with($this->key, 'own:');
    }

    /** The value that says nothing. */
    public function nothing(): string|bool
    {
        return match ($this->type) {
            FieldType::YesNo => false,
            FieldType::Status => TakeStatus::None->value,
            default => '',
        };
    }

    /** Whether a page may send this; texts are trimmed and cut by {@see self::clean} afterwards. */
    public function accepts(mixed $value): bool
    {
        return match ($this->type) {
            FieldType::YesNo => is_bool($value),
            FieldType::Status => is_string($value) && TakeStatus::tryFrom($value) !== null,
            FieldType::Devices => is_array($value) &&
                array_is_list($value) &&
                count($value) <= 50 &&
                array_filter($value, static fn(mixed $one): bool => !is_string($one) || strlen($one) > 12) === [],
            FieldType::Slate => $this->acceptsSlate($value),
            FieldType::Number => $value === null || (is_string($value) && ($value === '' || self::number($value) !== null)),
            FieldType::Choice => $value === null || $value === '' || in_array($value, $this->choices, true),
            default => $value === null || (is_string($value) && mb_check_encoding($value, 'UTF-8') && mb_strlen($value) <= $this->limit),
        };
    }

    private function acceptsSlate(mixed $value): bool
    {
        return match ($this->key) {
            'take' => is_int($value) && $value >= 1 && $value <= 999,
            'part' => $value === null || (is_string($value) && preg_match('/\A[a-hj-np-z]?\z/', $value) === 1),
            default => is_string($value) && trim($value) !== '' && strlen($value) <= $this->limit,
        };
    }

    /** As it is kept: spaces around it gone, numbers with a point. */
    public function clean(mixed $value): mixed
    {
        return match (true) {
            $this->type === FieldType::Number && is_string($value) => self::number($value) ?? '',
            in_array($this->type, [FieldType::Text, FieldType::Lines, FieldType::Choice], true) => mb_substr(
                trim((string) $value),
                0,
                $this->limit ?: null,
            ),
            $this->key === 'scene', $this->key === 'part' => trim((string) $value),
            default => $value,
        };
    }

    /** What a cell of somebody's table says; null where it cannot be such a value. */
    public function read(string $cell): string|bool|null
    {
        $cell = trim($cell);

        return match ($this->type) {
            FieldType::YesNo => match (true) {
                in_array(mb_strtolower($cell), self::YES, true) => true,
                in_array(mb_strtolower($cell), self::NO, true) => false,
                default => null,
            },
            FieldType::Number => $cell === '' ? '' : self::number($cell),
            FieldType::Choice => $this->choice($cell),
            default => $this->key === 'size'
                ? ShotSize::of($cell) ?? mb_substr($cell, 0, $this->limit)
                : mb_substr($cell, 0, $this->limit),
        };
    }

    /** As lists, names and reports write it. */
    public function text(mixed $value): string
    {
        return match (true) {
            $this->type === FieldType::Status => (TakeStatus::tryFrom((string) $value) ?? TakeStatus::None)->word(),
            $this->type === FieldType::YesNo => $value ? $this->word() : '',
            is_array($value) => implode(' ', $value),
            default => (string) $value,
        };
    }

    /** A mark is written by its own word, another yes by that. */
    private function word(): string
    {
        return $this->isOwn() ? 'yes' : $this->label;
    }

    private function choice(string $cell): ?string
    {
        foreach (['', ...$this->choices] as $choice) {
            if (mb_strtolower($choice) === mb_strtolower($cell)) {
                return $choice;
            }
        }

        return null;
    }

    /** `1,5` and `1.50` are one number: `1.5`; null for what is none. */
    private static function number(string $text): ?string
    {
        $plain = str_replace(',', '.', trim($text));
        if (preg_match('/\A[+-]?\d{1,12}(?:\.\d{1,6})?\z/', $plain) !== 1) {
            return null;
        }
        $number = ltrim($plain, '+');

        return str_contains($number, '.') ? rtrim(rtrim($number, '0'), '.') : $number;
    }
}
