<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

use Illuminate\Database\LostConnectionDetector;

/** The run has lost its task: the database went away, and the task's lock with it. Another worker goes on with it. */
final class TaskLost extends \RuntimeException
{
    /** Whether a run that ends with this must leave its task as it is, to be recovered. */
    public static function isBehind(\Throwable $trouble): bool
    {
        return $trouble instanceof self ||
            (new LostConnectionDetector())->causedByLostConnection($trouble) ||
            // The server refuses connections while it starts again.
            ($trouble instanceof \PDOException && str_contains($trouble->getMessage(), '[2002]'));
    }
}
