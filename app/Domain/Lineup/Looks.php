<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Look;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Look\Exception\InvalidLook;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/** The looks of a production: brought in from files, made by hand, and set for devices or clips; each step undoable. */
final class Looks
{
    /** Looks that one production has at most. */
    private const LIMIT = 400;

    /**
     * Brings in every correction of a file; one of a name that is there already takes its values.
     *
     * @param  string  $name  of the file
     * @return list<Look>
     *
     * @throws InvalidLook if it is no such file
     */
    public function bring(Production $production, User $user, string $text, string $name): array
    {
        $read = Cdl::read($text);
        $stem = pathinfo($name, PATHINFO_FILENAME);

        return DB::transaction(function () use ($production, $user, $read, $name, $stem): array {
            Production::query()->lockForUpdate()->findOrFail($production->id);
            if (Look::query()->where('production_id', $production->id)->count() + count($read) > self::LIMIT) {
                throw Problem::refused(
                    'look.many',
                    sprintf('A production has at most %d looks.', self::LIMIT),
                    'Bring in a file with fewer of them.',
                );
            }
            $log = new ChangeLog();
            $looks = [];
            foreach ($read as $id => $cdl) {
                // A correction without a name has its file's.
                $title = mb_substr(count($read) === 1 && is_numeric($id) ? $stem : (is_numeric($id) ? "$stem $id" : (string) $id), 0, 120);
                $look = Look::query()->firstOrNew(['production_id' => $production->id, 'name' => $title]);
                $look->fill($cdl->toArray() + ['source' => mb_substr($name, 0, 190)]);
                $log->save($look);
                $looks[] = $look;
            }
            $log->finish(
                $production,
                $user,
                count($looks) === 1 ? 'Bring in the look ' . $looks[0]->name : sprintf('Bring in %d looks', count($looks)),
            );
            Live::tell($production->id, Topic::Looks);

            return $looks;
        });
    }

    /** @throws Problem if another look has that name */
    public function make(Production $production, User $user, string $name, Cdl $cdl): Look
    {
        if (Look::query()->where('production_id', $production->id)->where('name', $name)->exists()) {
            throw Problem::refused(
                'look.taken',
                sprintf('There is a look "%s" already.', $name),
                'Choose another name, or change that one.',
            );
        }
        $log = new ChangeLog();
        $look = new Look(['production_id' => $production->id, 'name' => $name] + $cdl->toArray());
        $log->save($look);
        $log->finish($production, $user, 'Make the look ' . $name);
        Live::tell($production->id, Topic::Looks);

        return $look;
    }

    /**
     * @param  Cdl  $was  what the person saw
     *
     * @throws Problem if somebody changed it meanwhile
     */
    public function change(Look $look, User $user, Cdl $was, Cdl $now): void
    {
        DB::transaction(static function () use ($look, $user, $was, $now): void {
            $look = Look::query()->lockForUpdate()->findOrFail($look->id);
            if ($look->cdl() != $was) {
                throw Problem::editedMeanwhile($look->name, [
                    ['field' => 'look', 'yours' => $now->toArray(), 'theirs' => $look->cdl()->toArray()],
                ]);
            }
            $log = new ChangeLog();
            $look->fill($now->toArray());
            $log->save($look);
            $log->finish(Production::query()->findOrFail($look->production_id), $user, 'Change the look ' . $look->name);
        });
        Live::tell($look->production_id, Topic::Looks);
    }

    /** @param  Collection<int, Clip>|Device  $of */
    public function set(Production $production, User $user, Collection|Device $of, ?Look $look): void
    {
        $log = new ChangeLog();
        DB::transaction(static function () use ($production, $user, $of, $look, $log): void {
            foreach ($of instanceof Device ? [$of] : $of as $one) {
                $one->look_id = $look?->id;
                $log->save($one);
            }
            $what = $of instanceof Device ? lcfirst($of->title()) : ($of->count() === 1 ? $of->first()->name : $of->count() . ' clips');
            $log->finish($production, $user, $look === null ? "No look for $what" : "Look $look->name for $what");
        });
        Live::tell($production->id, Topic::Looks);
    }
}
