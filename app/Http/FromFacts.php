<?php

declare(strict_types=1);

namespace App\Http;

/** An answer that takes what a domain says in a way of its own. */
interface FromFacts
{
    /** @param  array<string, mixed>  $facts */
    public static function of(array $facts): self;
}
