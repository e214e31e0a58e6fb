<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** What was taken back or done again, and what of it stayed as others left it. */
final readonly class UndoneAnswer
{
    /**
     * @param  list<string>  $stayed
     * @param  list<string>  $topics  what a page asks for anew
     */
    public function __construct(public ?string $label, public array $stayed, public int $stayed_count, public array $topics) {}
}
