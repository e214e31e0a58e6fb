<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use App\Http\ListOf;

/** What was written down for good, newest first. */
final readonly class AuditAnswer
{
    /** @param  list<AuditRowAnswer>  $rows */
    public function __construct(#[ListOf(AuditRowAnswer::class)] public array $rows) {}
}
