<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Transcript;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Words\Transcript as Words;
use Illuminate\Support\Facades\DB;

/** Keeps what was found in a clip, or brought to it: where words were there before, one undoable step, which puts them back. */
final class KeepWords
{
    /** Words that a person wrote are only replaced where a person asked for just that. */
    public static function isCorrected(Clip $clip): bool
    {
        return Passage::query()->where('clip_id', $clip->id)->whereNotNull('edited_by')->exists();
    }

    /** @throws Problem */
    public static function refuseCorrected(Clip $clip): void
    {
        if (self::isCorrected($clip)) {
            throw Problem::conflict(
                'words.corrected',
                "Somebody has corrected the words of {$clip->title()}.",
                'Tick "Replace corrected words" first; Ctrl Z brings them back.',
            );
        }
    }

    /**
     * @param  'recognised'|'service'|'cues'|'text'  $source
     * @param  bool  $again  also where a person has corrected words
     *
     * @throws Problem if somebody has corrected the words before, and it was not asked for
     */
    public function __invoke(Clip $clip, ?User $user, Words $words, string $source, string $language, bool $again = false): Transcript
    {
        $paragraphs = $words->paragraphs();
        $transcript = DB::transaction(static function () use ($clip, $user, $words, $source, $language, $paragraphs, $again): Transcript {
            Clip::query()->whereKey($clip->id)->lockForUpdate()->first();
            // Also those that somebody corrected while it was listened to.
            if (!$again) {
                self::refuseCorrected($clip);
            }
            $isFound = $source === 'recognised' || $source === 'service';
            $label = ($isFound ? 'Find' : 'Bring') . " the words of {$clip->title()}";
            $old = Transcript::query()->where('clip_id', $clip->id)->first();
            $log = match (true) {
                $user === null => new ChangeLog(),
                // What is found for a whole day comes while the person works on something else, and takes nothing away.
                $isFound && $old === null => ChangeLog::beside($clip->production, $user, $label),
                default => ChangeLog::long($clip->production, $user, $label, null),
            };
            if ($old !== null) {
                $log->deleteAll($old->passages()->get());
            }
            $transcript = $old ?? new Transcript(['production_id' => $clip->production_id, 'clip_id' => $clip->id]);
            $transcript->fill([
                'user_id' => $user?->id,
                'language' => $language,
                'source' => $source,
                'engine' => $words->engine,
                'model' => $words->model,
            ]);
            $log->save($transcript);
            $passages = array_map(static fn(array $paragraph): Passage => PassageWords::make($transcript, $clip, $paragraph), $paragraphs);
            $log->createAll($passages);
            PassageWords::remember($clip->production_id, array_map(static fn(Passage $one): string => $one->said, $passages));
            if ($user !== null) {
                $log->finish($clip->production, $user, $label);
            }
            HeardCalls::keep($clip->id);

            return $transcript;
        });
        Live::tell($clip->production_id, Topic::Spoken, ['clip' => $clip->ulid]);

        return $transcript;
    }
}
