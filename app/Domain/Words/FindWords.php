<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Lineup\Windows;
use App\Domain\Tasks\StartTask;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\Transcript;
use App\Models\User;
use App\Support\Problem;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Starts to find what is said in clips: of those that were chosen, or of all sound of a day that has no words yet. */
final class FindWords
{
    public function __construct(private readonly StartTask $start) {}

    /**
     * @param  list<string>  $ulids
     * @param  bool  $again  also where a person has corrected words
     *
     * @throws Problem if none of them has sound that can be listened to
     */
    public function clips(Production $production, User $user, array $ulids, string $language, bool $again, bool $byService): Task
    {
        $clips = Clip::query()->where('production_id', $production->id)->whereNull('away_at')->whereIn('ulid', $ulids)->get();
        $heard = $clips->filter(self::isHeard(...))->values();
        if ($heard->isEmpty()) {
            throw Problem::refused(
                'words.nothing',
                $clips->count() === 1
                    ? "{$clips[0]->title()} has no sound that could be listened to yet."
                    : 'None of them has sound that could be listened to yet.',
                'Choose recordings whose media have been made.',
            );
        }
        if (!$again && $heard->every(KeepWords::isCorrected(...))) {
            KeepWords::refuseCorrected($heard[0]);
        }

        return $this->start(
            $production,
            $user,
            $heard,
            $language,
            $again,
            $byService,
            $heard->count() === 1 ? "Find the words of {$heard[0]->title()}" : "Find the words of {$heard->count()} clips",
        );
    }

    /** @throws Problem if there is nothing left to listen to */
    public function day(ShootDay $day, User $user, string $language, bool $byService): Task
    {
        $open = self::open($day);
        if ($open->isEmpty()) {
            throw Problem::refused(
                'words.nothing',
                Transcript::query()->whereHas('clip', static fn($clip) => $clip->where('shoot_day_id', $day->id))->exists()
                    ? "All sound of day $day->number has its words."
                    : "Day $day->number has no sound that could be listened to yet.",
                'Come back when there is more.',
            );
        }

        return $this->start($day->production, $user, $open, $language, false, $byService, "Find the words of day $day->number");
    }

    /**
     * What of a day is listened to and has no words yet: recorders' sound, and cameras' own where no recorder ran.
     *
     * @return Collection<int, Clip>
     */
    public static function open(ShootDay $day): Collection
    {
        // Most pictures have their recording in their take; the line-up is asked about the others.
        $with = DB::table('take_parts as seen')
            ->join('take_parts as heard', 'heard.take_id', '=', 'seen.take_id')
            ->join('clips', 'clips.id', '=', 'heard.clip_id')
            ->where('clips.shoot_day_id', $day->id)
            ->where('clips.kind', 'sound')
            ->distinct()
            ->pluck('seen.clip_id', 'seen.clip_id');

        return Clip::shotOn($day->id)
            ->whereNotNull('proxied_at')
            ->whereNotIn('id', Transcript::query()->select('clip_id')->where('production_id', $day->production_id))
            ->with(['placement', 'day', 'production'])
            ->orderBy('kind', 'desc')
            ->orderBy('start_ticks')
            ->get()
            ->reject(static fn(Clip $clip): bool => $clip->isPicture() && isset($with[$clip->id]))
            ->filter(static fn(Clip $clip): bool => self::isHeard($clip) && !Windows::hasSound($clip))
            ->values();
    }

    public static function isHeard(Clip $clip): bool
    {
        return $clip->proxied_at !== null && $clip->worthHearing() !== [] && MediaFolder::of($clip)->has(MediaFile::Peaks);
    }

    /** @param  Collection<int, Clip>  $clips */
    private function start(
        Production $production,
        User $user,
        Collection $clips,
        string $language,
        bool $again,
        bool $byService,
        string $title,
    ): Task {
        $byService ? WordsService::of($production) : Languages::of($language);
        $first = $clips->first();

        return ($this->start)(
            $production,
            $user,
            'words',
            $title,
            [
                'clips' => $clips->pluck('id')->all(),
                'language' => $language,
                'again' => $again,
                'service' => $byService,
                'days' => $clips->pluck('shoot_day_id')->unique()->values()->all(),
            ],
            $clips->count() === 1 ? "words.clip.$first->id" : "words.day.$first->shoot_day_id",
        );
    }
}
