<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\TaskKinds;
use App\Models\Card;
use App\Models\ShootDay;
use App\Models\Task;

/** The kinds of task of this domain. */
final class CardsTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register('offload', CopyCardJob::class, 'copy', self::isOf(...));
        // Behind the offloads: a card waits in a reader, a copy does not.
        $kinds->register('verify', CheckCardJob::class, 'check');
        $kinds->register('release', ReleaseCardJob::class, 'check');
        $kinds->register('catalogue', CatalogueCardJob::class, 'media', self::isOf(...));
    }

    private static function isOf(Task $task, ShootDay $day): bool
    {
        return (int) ($task->subject['day'] ?? 0) === $day->id ||
            Card::query()
                ->whereKey($task->subject['card'] ?? 0)
                ->where('shoot_day_id', $day->id)
                ->exists();
    }
}
