<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use App\Models\ProductionField;

/** A field that a production added, as its set-up shows it. */
final readonly class OwnFieldAnswer
{
    /**
     * @param  'text'|'number'|'choice'|'yes_no'  $type
     * @param  list<string>  $choices
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $label,
        public string $type,
        public array $choices,
        public bool $is_retired,
    ) {}

    public static function of(ProductionField $field): self
    {
        return new self(
            $field->ulid,
            $field->name,
            $field->label,
            $field->type->value,
            array_values($field->choices ?? []),
            $field->retired_at !== null,
        );
    }
}
