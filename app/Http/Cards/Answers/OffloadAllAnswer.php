<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** The cards that are copied now, and those of which something has to be asked. */
final readonly class OffloadAllAnswer
{
    /**
     * @param  list<string>  $started
     * @param  list<array{name: string, why: string}>  $asked
     */
    public function __construct(public array $started, public array $asked) {}
}
