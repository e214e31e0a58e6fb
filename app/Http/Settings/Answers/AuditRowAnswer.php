<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** Something that was written down for good. */
final readonly class AuditRowAnswer
{
    /**
     * @param  array<string, string|int|bool|null>  $facts
     */
    public function __construct(public string $at, public string $what, public string $who, public ?string $address, public array $facts) {}
}
