<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Media\ChannelNames;
use Illuminate\Support\Facades\DB;

/**
 * Which of the recorder's channels are heard under the pictures of a take, and how loud. For listening only: the
 * recording, the guide sound and what is handed off as production sound stay as they are.
 */
final class SoundOfTake
{
    public const LEAST_DB = -40;

    public const MOST_DB = 20;

    public function __construct(private readonly CheckPoints $points) {}

    /**
     * @return array{clip: string, name: string, is_default: bool, channels: list<array{index: int, name: string, on: bool,
     *     gain_db: float}>}|null
     *     null where no recording ran with the clip
     */
    public static function of(Clip $clip): ?array
    {
        if (!$clip->isPicture() || $clip->take === null) {
            return null;
        }
        $sound = Windows::companion($clip, 'sound');
        if ($sound === null) {
            return null;
        }
        $chosen = $clip->take->listening;
        $usual = ChannelNames::heard($sound->worthHearing());

        return [
            'clip' => $sound->ulid,
            'name' => $sound->title(),
            'is_default' => $chosen === null,
            'channels' => array_map(
                static fn(array $channel): array => [
                    'index' => $channel['index'],
                    'name' => (string) $channel['name'],
                    'on' => $chosen === null ? in_array($channel['index'], $usual, true) : $chosen[$channel['index']]['on'] ?? false,
                    'gain_db' => (float) ($chosen[$channel['index']]['gain_db'] ?? 0),
                ],
                array_values($sound->channels ?? []),
            ),
        ];
    }

    /**
     * @param  list<array{index: int, on: bool, gain_db: float}>|null  $channels  null for what is heard when nobody has chosen
     * @param  list<array{index: int, on: bool, gain_db: float}>|null  $was  what the person saw
     *
     * @throws Problem if somebody changed it meanwhile
     */
    public function set(Take $take, User $user, ?array $channels, ?array $was): void
    {
        $keyed = static fn(?array $list): ?array => $list === null
            ? null
            : array_column(
                array_map(
                    static fn(array $one): array => [
                        'index' => (int) $one['index'],
                        'on' => (bool) $one['on'],
                        'gain_db' => round((float) $one['gain_db'], 1),
                    ],
                    $list,
                ),
                null,
                'index',
            );
        DB::transaction(static function () use ($take, $user, $channels, $was, $keyed): void {
            $take = Take::query()->lockForUpdate()->findOrFail($take->id);
            if ($take->listening != $keyed($was)) {
                throw Problem::editedMeanwhile('the sound of ' . $take->label(), [
                    ['field' => 'listening', 'yours' => $channels, 'theirs' => array_values($take->listening ?? [])],
                ]);
            }
            $log = new ChangeLog();
            $take->listening = $keyed($channels);
            $log->save($take);
            $log->finish($take->day->production, $user, 'Sound of ' . $take->label());
        });
        Live::tell($take->production_id, Topic::Takes);
    }

    /**
     * Lets players and reels begin a clip a second before its slate closes, as its sound or else its picture tells.
     *
     * @throws Problem if no slate is heard or seen, or it begins there already
     */
    public function beginAtSlate(Clip $clip, User $user, ?int $was): int
    {
        $frames = SlateStart::heard($clip) ?? SlateStart::seen($clip, $this->points);
        if ($frames === null) {
            throw Problem::refused('head.slate', 'No slate was heard or seen on ' . $clip->title() . '.', 'It is played whole.');
        }
        if ($frames < 1) {
            throw Problem::refused('head.there', $clip->title() . ' begins at its slate already.', 'It is played whole.');
        }
        $this->trimHead($clip, $user, $frames, $was);

        return $frames;
    }

    /**
     * Begins all pictures of a day, or some of them, a second before their slates close, or whole again: one step. What is
     * known of claps and closing slates since the clips came in is enough; a clip of which nothing is known stays whole.
     *
     * @param  list<string>|null  $clips  ULIDs; null is every picture of the day
     * @return array{changed: int, none: int} clips that begin elsewhere now, and those on which no slate was heard or seen
     */
    public function trimHeads(ShootDay $day, User $user, ?array $clips, bool $whole): array
    {
        $count = DB::transaction(function () use ($day, $user, $clips, $whole): array {
            $log = new ChangeLog();
            $count = ['changed' => 0, 'none' => 0];
            $changed = [];
            $pictures = Clip::shotOn($day->id)
                ->with(['production', 'parts.take'])
                ->where('kind', 'picture')
                ->when($clips !== null, static fn($query) => $query->whereIn('ulid', $clips))
                ->orderBy('id')
                ->lockForUpdate()
                ->get();
            foreach ($pictures as $clip) {
                $frames = $whole ? null : SlateStart::known($clip, $this->points);
                if (!$whole && $frames === null) {
                    $count['none']++;

                    continue;
                }
                $clip->head_frames = $frames !== null && $frames >= 1 && $frames < (int) $clip->frames ? $frames : null;
                if ($clip->isDirty('head_frames')) {
                    $changed[] = $clip;
                    $count['changed']++;
                }
            }
            $log->saveAll($changed);
            $log->finish(
                $day->production,
                $user,
                sprintf($whole ? 'Whole heads of %d clips' : 'Begin %d clips at their slates', $count['changed']),
            );

            return $count;
        });
        Live::tell($day->production_id, Topic::Clips);

        return $count;
    }

    /**
     * Where players and reels begin a clip, in frames; null is its first one.
     *
     * @throws Problem if the clip has no such frame, or somebody changed it meanwhile
     */
    public function trimHead(Clip $clip, User $user, ?int $frames, ?int $was): void
    {
        if ($frames !== null && ($frames < 1 || $frames >= (int) $clip->frames)) {
            throw Problem::refused(
                'head.frame',
                sprintf('%s cannot begin at frame %d.', $clip->title(), $frames),
                'Choose a frame inside the clip.',
            );
        }
        DB::transaction(static function () use ($clip, $user, $frames, $was): void {
            $clip = Clip::query()->lockForUpdate()->findOrFail($clip->id);
            if ($clip->head_frames !== $was) {
                throw Problem::editedMeanwhile($clip->title(), [
                    ['field' => 'head_frames', 'yours' => $frames, 'theirs' => $clip->head_frames],
                ]);
            }
            $log = new ChangeLog();
            $clip->head_frames = $frames;
            $log->save($clip);
            $log->finish(
                $clip->production,
                $user,
                $frames === null ? 'Whole head of ' . $clip->title() : sprintf('Begin %s at its frame %d', $clip->title(), $frames),
            );
        });
        Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);
    }
}
