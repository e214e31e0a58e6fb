<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Models\User;
use App\Support\Folders;
use App\Support\Problem;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Aligner;
use Cartella\Core\Words\ScriptModel;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Gives each word of a text its time: what is said is heard with nothing but the text in mind, and the two are laid beside each other. */
final class AlignJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    /** Share of a text that has to be heard. */
    private const LEAST = 0.5;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(KeepWords $keep, HearWords $hear): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($keep, $hear): array {
            $subject = $run->task->subject;
            $clip = Clip::query()
                ->with(['production', 'parts.take'])
                ->findOrFail($subject['clips'][0]);
            $path = Folders::var('words/' . $subject['text'] . '.txt');
            $text = is_file($path)
                ? (string) file_get_contents($path)
                : throw Problem::refused('words.text', 'The text is not there any more.', 'Bring it again.');
            $run->expect(max(1, intdiv((int) $clip->duration_ticks, Ticks::PER_SECOND)));
            $heard = $hear->in(
                $clip,
                Languages::of((string) $subject['language']),
                $run->task,
                static fn(int $ticks) => $run->at(intdiv($ticks, Ticks::PER_SECOND), now: "aligning to {$clip->title()}"),
                ScriptModel::ofText(Aligner::spokenText($text)),
            );
            $aligned = Aligner::align($text, $heard->words, (int) $clip->duration_ticks);
            if ($aligned->matched < self::LEAST) {
                throw Problem::refused(
                    'words.other',
                    sprintf('Only %d%% of this text was heard in %s.', (int) round(100 * $aligned->matched), $clip->title()),
                    'Look whether the text belongs to this clip.',
                );
            }
            $keep(
                $clip,
                User::query()->find($run->task->user_id),
                $aligned->transcript,
                'text',
                (string) $subject['language'],
                $subject['again'] === true,
            );
            @unlink($path);

            return [
                'message' => sprintf(
                    '%d words have their times; %d%% of them were heard.',
                    count($aligned->transcript->words),
                    (int) round(100 * $aligned->matched),
                ),
            ];
        });
    }
}
