<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** The references of all that lies in a bin. */
final readonly class BinRefsAnswer
{
    /** @param  list<string>  $refs */
    public function __construct(public array $refs) {}
}
