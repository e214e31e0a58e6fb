<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** A name that a pattern would give. */
final readonly class GivenNameAnswer
{
    /**
     * @param  list<string>  $problems
     */
    public function __construct(
        public string $ulid,
        public string $original,
        public string $was,
        public string $name,
        public array $problems,
    ) {}
}
