<?php

declare(strict_types=1);

namespace App\Domain\Undo;

use App\Models\Change;

/** A step that was taken back or done again, and what of it stayed as others left it. */
final readonly class Undone
{
    /**
     * @param  int  $count  rows that stayed
     * @param  list<string>  $stayed  the first of them, each a clause without a full stop
     * @param  list<string>  $topics  of what was written
     */
    public function __construct(public Change $change, public int $count, public array $stayed, public array $topics) {}
}
