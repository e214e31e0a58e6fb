<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Tasks\NoRoom;
use App\Domain\Tasks\TaskCancelled;
use App\Domain\Tasks\TaskLost;
use App\Domain\Tasks\TaskPaused;
use App\Domain\Tasks\TaskRun;
use App\Models\Handoff;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Topic;
use App\Support\WroteAtOnce;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Writes the package of one hand-off and delivers it. */
final class PackJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(Package $package): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($package): array {
            $handoff = Handoff::query()->findOrFail($run->task->subject['handoff']);
            if ($handoff->delivered_at !== null) {
                return $handoff->summary ?? [];
            }
            $handoff->update(['state' => 'packing']);
            try {
                $summary = $package->write($handoff, $run);
            } catch (NoRoom | TaskPaused | TaskLost $later) {
                throw $later;
            } catch (TaskCancelled $stopped) {
                // What was begun lies in nobody's way.
                Package::abandon($handoff);
                $handoff->update(['state' => 'stopped']);
                Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);
                throw $stopped;
            } catch (\Throwable $trouble) {
                if (WroteAtOnce::isBehind($trouble)) {
                    throw $trouble; // it goes on in a moment
                }
                $handoff->update(['state' => 'failed']);
                Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);
                throw $trouble;
            }
            $handoff->update(['state' => 'delivered', 'delivered_at' => now(), 'summary' => $summary]);
            Audit::write('handoff.delivered', $run->task->user_id, $handoff->production_id, [
                'handoff' => $handoff->number,
                'folder' => $handoff->folder,
                'files' => $summary['files'],
            ]);
            WebHooks::tell($handoff, 'delivered');
            Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);

            return $summary + ['message' => sprintf('%d files delivered.', $summary['files'])];
        });
    }
}
