<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Models\Transcript;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\CartellaException;
use Cartella\Core\Time\Ticks;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\Log;

/** Finds the words of clips, one after the other; each is kept as it is done, and a stopped run goes on within a long one. */
final class FindWordsJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(KeepWords $keep, HearWords $hear, WordsService $service): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($keep, $hear, $service): array {
            $subject = $run->task->subject;
            $user = User::query()->find($run->task->user_id);
            $clips = Clip::query()
                ->with(['production', 'parts.take'])
                ->whereKey($subject['clips'])
                ->whereNull('away_at')
                ->get()
                ->sortBy(static fn(Clip $clip): int => (int) array_search($clip->id, $subject['clips'], true));
            $seconds = static fn(int $ticks): int => intdiv($ticks, Ticks::PER_SECOND);
            $run->expect($clips->sum(static fn(Clip $clip): int => max(1, $seconds((int) $clip->duration_ticks))));
            $done = $found = $kept = 0;
            $left = [];
            foreach ($clips as $clip) {
                $run->at($done, now: "listening to {$clip->title()}");
                $isDone = Transcript::query()->where('clip_id', $clip->id)->where('updated_at', '>=', $run->task->created_at)->exists();
                if (!$isDone && $subject['again'] !== true && KeepWords::isCorrected($clip)) {
                    $kept++;
                } elseif (!$isDone) {
                    $progress = static function (int $ticks) use ($run, $done, $seconds, $clip): void {
                        $run->at($done + $seconds($ticks), now: "listening to {$clip->title()}");
                    };
                    try {
                        $words =
                            $subject['service'] === true
                                ? $service->find($clip, (string) $subject['language'], $run->task, $progress)
                                : $hear->in($clip, Languages::of((string) $subject['language']), $run->task, $progress);
                        $keep(
                            $clip,
                            $user,
                            $words,
                            $subject['service'] === true ? 'service' : 'recognised',
                            (string) $subject['language'],
                            $subject['again'] === true,
                        );
                        $found += count($words->words);
                    } catch (CartellaException | Problem $trouble) {
                        // One that cannot be read leaves the others alone; a single one says why.
                        if ($clips->count() === 1) {
                            throw $trouble;
                        }
                        Log::warning('The words of a clip were not found.', ['clip' => $clip->ulid, 'cause' => $trouble->getMessage()]);
                        $left[] = "{$clip->title()}: {$trouble->getMessage()}";
                    }
                }
                $done += max(1, $seconds((int) $clip->duration_ticks));
                $run->at($done);
            }

            return [
                'message' => sprintf(
                    '%s found in %d %s%s.',
                    $found === 0 ? 'No words' : number_format($found) . ($found === 1 ? ' word' : ' words'),
                    $clips->count() - count($left) - $kept,
                    $clips->count() - count($left) - $kept === 1 ? 'clip' : 'clips',
                    $kept === 0 ? '' : "; $kept left alone, as people have corrected them",
                ),
                'faults' => $left,
            ];
        });
    }
}
