<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use App\Models\Task;
use Illuminate\Foundation\Events\Dispatchable;

/** A task ended without doing its work; whoever has something of it to put right listens. */
final class TaskFailed
{
    use Dispatchable;

    public function __construct(public readonly Task $task) {}
}
