<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Tasks\TaskRun;
use App\Models\Handoff;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Reads a delivered package against its manifest, and marks it accepted when it is whole. */
final class AcceptJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run): array {
            $handoff = Handoff::query()->findOrFail($run->task->subject['handoff']);
            $run->expect((int) ($handoff->summary['files'] ?? 1));
            $found = Delivery::of($handoff)->verify(
                static fn(string $path, int $bytes, int $files) => $run->at(min($files, $run->task->total), $bytes, basename($path)),
            );
            if (!$found['ok']) {
                throw AnswerHandoff::altered(
                    [
                        ...$found['missing'],
                        ...$found['altered'],
                        ...array_column($found['renamed'], 'from'),
                        ...$found['new'],
                        ...$found['problems'],
                    ],
                    [],
                );
            }
            $handoff->update(['state' => 'accepted', 'answered_at' => now(), 'answered_by' => $run->task->user_id, 'query' => null]);
            Audit::write('handoff.answered', $run->task->user_id, $handoff->production_id, [
                'handoff' => $handoff->number,
                'state' => 'accepted',
            ]);
            WebHooks::tell($handoff, 'accepted');
            Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);

            return ['message' => "Hand-off $handoff->number is whole, and accepted."];
        });
    }
}
