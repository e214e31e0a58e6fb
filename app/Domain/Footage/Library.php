<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * What productions share: imports of those that are libraries. Others see and hear them and change nothing of them; what one takes
 * into its own bins becomes a clip of its own that stands on the same files and media.
 */
final class Library
{
    /** Imports of other productions that are shared, from the table `clips`. */
    public static function clips(Production $production): Builder
    {
        return DB::table('clips')
            ->whereIn(
                'clips.production_id',
                DB::table('productions')->where('is_library', true)->where('id', '!=', $production->id)->select('id'),
            )
            ->whereNotNull('clips.import_kind')
            ->whereNull('clips.away_at');
    }

    /**
     * References in which clips of a library are replaced by those that stand for them here, made where there is none yet.
     *
     * @param  list<string>  $refs
     * @return list<string>
     */
    public static function into(Production $production, User $user, array $refs): array
    {
        $ulids = [];
        foreach ($refs as $ref) {
            if (preg_match('/\Aclip:([0-9A-Z]{26})/', $ref, $part) === 1) {
                $ulids[] = $part[1];
            }
        }
        $theirs = $ulids === [] ? [] : self::clips($production)->whereIn('clips.ulid', $ulids)->pluck('clips.ulid')->all();
        if ($theirs === []) {
            return $refs;
        }
        $ours = [];
        foreach ($theirs as $ulid) {
            $ours["clip:$ulid"] = 'clip:' . self::take($production, $user, $ulid)->ulid;
        }

        return array_map(
            static fn(string $ref): string => isset($ours[substr($ref, 0, 31)]) ? $ours[substr($ref, 0, 31)] . substr($ref, 31) : $ref,
            $refs,
        );
    }

    /**
     * The production's own clip for one of a library; made at its last day, in a step that can be taken back.
     *
     * @throws Problem if it is no such clip, or the production has no day yet
     */
    public static function take(Production $production, User $user, string $ulid): Clip
    {
        $id = self::clips($production)->where('clips.ulid', $ulid)->value('clips.id');
        $theirs = $id === null ? null : Clip::query()->find($id);
        if ($theirs === null) {
            throw Problem::missing('That clip', 'Look into the library again.');
        }
        $clip = DB::transaction(static function () use ($production, $user, $theirs): Clip {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            $there = Clip::query()->where('production_id', $production->id)->where('library_ulid', $theirs->ulid)->first();
            if ($there !== null && $there->away_at === null) {
                return $there;
            }
            $day = ShootDay::query()->where('production_id', $production->id)->orderByDesc('number')->first();
            if ($day === null) {
                throw Problem::refused('library.no_day', 'This production has no shoot day yet.', 'Add one first.');
            }
            $clip = $there ?? $theirs->replicate(['ulid', 'look_id', 'head_frames', 'has_no_slate', 'found', 'colour']);
            $clip->fill([
                'production_id' => $production->id,
                'shoot_day_id' => $day->id,
                'device_id' => null,
                'path_hash' => hash('xxh128', "$production->id:$theirs->path"),
                'library_ulid' => $theirs->ulid,
                'away_at' => null,
            ]);
            $log = new ChangeLog();
            $log->save($clip);
            $log->finish($production, $user, "Take {$clip->title()} from the library");

            return $clip;
        });
        Live::tell($production->id, Topic::Clips);

        return $clip;
    }

    /** Shares a production's imports with all others, or ends that; what others took stays theirs. */
    public static function share(Production $production, User $user, bool $on): void
    {
        DB::transaction(static function () use ($production, $user, $on): void {
            $log = new ChangeLog();
            $production->is_library = $on;
            $log->save($production);
            $log->finish($production, $user, $on ? 'Share the imports with all productions' : 'Share the imports no more');
        });
        foreach (Production::query()->pluck('id') as $id) {
            Live::tell((int) $id, Topic::Clips);
        }
    }
}
