<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** What lies in a package. */
final readonly class ReadFilesAnswer
{
    /** @param  list<PackageFileAnswer>  $files */
    public function __construct(#[ListOf(PackageFileAnswer::class)] public array $files) {}
}
