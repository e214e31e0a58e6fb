<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Models\Task;
use App\Support\Folders;
use Cartella\Core\Words\Levels;
use Cartella\Core\Words\Listening;
use Cartella\Core\Words\Recogniser;
use Cartella\Core\Words\ScriptModel;
use Cartella\Core\Words\SoundSource;
use Cartella\Core\Words\SpeechModel;
use Cartella\Core\Words\Transcript as Words;
use Cartella\Core\Words\Word;
use Illuminate\Support\Facades\File;

/**
 * Listens to a clip on this machine, from what cataloguing kept of its channels, so that no volume need be mounted. What a stopped run
 * has found lies in a journal, and the next one goes on behind it.
 */
final class HearWords
{
    /**
     * @param  callable(int): void  $progress  gets ticks of the clip that are done; throws to stop
     * @param  ScriptModel|null  $script  what is said; null takes what the script says may be
     */
    public function in(Clip $clip, SpeechModel $model, Task $task, callable $progress, ?ScriptModel $script = null): Words
    {
        Recogniser::need($model);
        $media = MediaFolder::of($clip);
        $channels = array_map(static fn(array $one): int => (int) $one['index'], $clip->worthHearing());
        $files = [];
        foreach ($channels as $channel) {
            $files[$channel] = $media->read(MediaFile::Channel, $channel);
        }
        $plan = Listening::plan(
            Levels::ofPeaks($media->read(MediaFile::Peaks)),
            $channels,
            array_column($clip->channels ?? [], 'name', 'index'),
        );
        $script ??= ScriptOf::model($clip);
        $journal = Folders::var("words/$task->ulid.$clip->id.jsonl");
        $work = Folders::var("words/$task->ulid.$clip->id");
        // Of a run that was killed there may be some sound.
        File::deleteDirectory($work);
        File::ensureDirectoryExists($work, 0700);
        [$words, $until] = self::resume($journal);
        try {
            Recogniser::listen(
                SoundSource::ofChannels($files),
                $plan,
                $model,
                $script,
                $work,
                static function (array $found, int $ticks) use (&$words, $journal, $progress): void {
                    array_push($words, ...$found);
                    file_put_contents(
                        $journal,
                        json_encode(
                            ['until' => $ticks, 'words' => array_map(static fn(Word $word): array => $word->toArray(), $found)],
                            JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE,
                        ) . "\n",
                        FILE_APPEND | LOCK_EX,
                    );
                    $progress($ticks);
                },
                $until,
            );
            $done = Recogniser::finish($script, $words);
            @unlink($journal);

            return $done;
        } finally {
            File::deleteDirectory($work);
        }
    }

    /**
     * A line that a killed run wrote half is taken off, so that the next one does not stand behind it.
     *
     * @return array{list<Word>, int} words of whole lines of the journal, and the ticks up to which they are
     */
    private static function resume(string $journal): array
    {
        $words = [];
        $until = $length = 0;
        foreach (is_file($journal) ? (file($journal) ?: []) : [] as $line) {
            $one = json_decode($line, true);
            if (!str_ends_with($line, "\n") || !is_array($one) || !is_int($one['until'] ?? null) || !is_array($one['words'] ?? null)) {
                break;
            }
            foreach ($one['words'] as $number => $word) {
                $words[] = Word::fromArray($word, $number + 1);
            }
            $until = $one['until'];
            $length += strlen($line);
        }
        if (is_file($journal) && filesize($journal) > $length) {
            file_put_contents($journal, substr((string) file_get_contents($journal), 0, $length), LOCK_EX);
        }

        return [$words, $until];
    }
}
