<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** It is done, and there is nothing more to say. */
final readonly class DoneAnswer
{
    public function __construct() {}
}
