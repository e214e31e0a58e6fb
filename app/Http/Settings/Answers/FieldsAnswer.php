<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** The fields that a production added. */
final readonly class FieldsAnswer
{
    /** @param  list<OwnFieldAnswer>  $fields */
    public function __construct(public array $fields) {}
}
