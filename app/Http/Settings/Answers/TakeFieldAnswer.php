<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use Cartella\Core\Fields\Field;

/** One entry of the list of what is known of a take. */
final readonly class TakeFieldAnswer
{
    /**
     * @param  'text'|'number'|'choice'|'yes_no'|'lines'|'status'|'slate'|'devices'  $type
     * @param  list<string>  $choices
     */
    public function __construct(
        public string $key,
        public string $name,
        public string $type,
        public string $label,
        public int $limit,
        public array $choices,
    ) {}

    public static function of(Field $field): self
    {
        return new self($field->key, $field->name, $field->type->value, $field->label, $field->limit, $field->choices);
    }
}
