<?php

declare(strict_types=1);

namespace App\Http;

use Attribute;

/** Of what answers a list, or a map of lists, in an answer consists. */
#[Attribute(Attribute::TARGET_PARAMETER)]
final readonly class ListOf
{
    /** @param  class-string  $answer */
    public function __construct(public string $answer) {}
}
