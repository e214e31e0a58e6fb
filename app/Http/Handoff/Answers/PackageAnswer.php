<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** A delivered package with all of its files. */
final readonly class PackageAnswer
{
    /** @param  list<PackageFileAnswer>  $files */
    public function __construct(public HandoffAnswer $handoff, #[ListOf(PackageFileAnswer::class)] public array $files) {}
}
