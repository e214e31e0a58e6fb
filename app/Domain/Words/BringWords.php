<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Tasks\StartTask;
use App\Models\Clip;
use App\Models\Task;
use App\Models\User;
use App\Support\Folders;
use App\Support\Problem;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Words\Aligner;
use Cartella\Core\Words\CueReader;
use Cartella\Core\Words\Exception\UnableToReadWords;
use Cartella\Core\Words\SpokenText;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Str;

/** Takes a text in that exists: cues keep their times, a text without times is aligned to the sound by a worker. */
final class BringWords
{
    /** Words of a text that is aligned. */
    private const MOST = 60_000;

    public function __construct(private readonly KeepWords $keep, private readonly StartTask $start) {}

    /**
     * @param  bool  $again  also where a person has corrected words
     * @return array{task: Task|null, words: int, problems: list<ListProblem>}
     *
     * @throws Problem if nothing can be read in it
     */
    public function __invoke(Clip $clip, User $user, string $bytes, string $language, bool $again): array
    {
        if (!$again) {
            KeepWords::refuseCorrected($clip);
        }
        $text = CueReader::decoded($bytes);
        if (CueReader::isTimed($text)) {
            try {
                ['transcript' => $words, 'problems' => $problems] = CueReader::read($bytes);
            } catch (UnableToReadWords $trouble) {
                throw Problem::refused($trouble->problemCode(), $trouble->getMessage(), $trouble->fix());
            }
            ($this->keep)($clip, $user, $words, 'cues', $language, $again);

            return ['task' => null, 'words' => count($words->words), 'problems' => $problems];
        }
        $count = count(SpokenText::written(Aligner::spokenText($text)));
        if ($count === 0 || $count > self::MOST) {
            throw Problem::refused(
                'words.text',
                $count === 0 ? 'There is no word in that text.' : 'That text is longer than a clip could say.',
                'Bring SRT, WebVTT or plain text of this clip.',
            );
        }
        if (!FindWords::isHeard($clip)) {
            throw Problem::refused(
                'words.nothing',
                "{$clip->title()} has no sound that a text could be aligned to yet.",
                'Choose the recording that has the sound.',
            );
        }
        Languages::of($language);
        $name = strtolower((string) Str::ulid());
        File::ensureDirectoryExists(Folders::var('words'));
        File::put(Folders::var("words/$name.txt"), $text);
        $task = ($this->start)(
            $clip->production,
            $user,
            'align',
            "Align a text to {$clip->title()}",
            ['clips' => [$clip->id], 'language' => $language, 'text' => $name, 'again' => $again, 'days' => [$clip->shoot_day_id]],
            "words.clip.$clip->id",
        );

        return ['task' => $task, 'words' => $count, 'problems' => []];
    }
}
