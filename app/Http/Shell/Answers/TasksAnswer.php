<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** What runs, waits, failed, and ended today. */
final readonly class TasksAnswer
{
    /** @param  list<TaskAnswer>  $tasks */
    public function __construct(public array $tasks) {}
}
