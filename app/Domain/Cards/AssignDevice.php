<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Undo\ChangeLog;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Media\MediaNames;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Says which device recorded some clips, in one undoable step; the device is the angle, so nothing else has to follow. */
final class AssignDevice
{
    /**
     * @param  Collection<int, Clip>  $clips
     * @param  Device|null  $device  null makes them imports
     * @param  Card|null  $card  whose clips they are, when it is the whole card's device that changes
     * @param  string|null  $importKind  one of {@see MediaNames::IMPORTS}; by the clip's folder when nobody says
     * @return int clips that changed
     */
    public function __invoke(
        Production $production,
        User $user,
        Collection $clips,
        ?Device $device,
        ?Card $card = null,
        ?string $importKind = null,
    ): int {
        $changed = DB::transaction(static function () use ($production, $user, $clips, $device, $card, $importKind): int {
            $log = new ChangeLog();
            $changed = 0;
            if ($card !== null) {
                $card->device_id = $device?->id;
                $log->save($card);
            }
            foreach ($clips as $clip) {
                $clip->device_id = $device?->id;
                $clip->import_kind = $device === null ? $importKind ?? ($clip->import_kind ?? MediaNames::importKind($clip->path)) : null;
                if ($clip->isDirty(['device_id', 'import_kind'])) {
                    $log->save($clip);
                    $changed++;
                }
            }
            $log->finish(
                $production,
                $user,
                sprintf(
                    '%s %s',
                    match (true) {
                        $card !== null => $card->roll . ' is',
                        $clips->count() === 1 => $clips->first()->name . ' is',
                        default => "$changed clips are",
                    },
                    $device === null ? 'of the imports' : lcfirst($device->title()),
                ),
            );

            return $changed;
        });
        if ($changed > 0 || $card !== null) {
            Live::tell($production->id, Topic::Cards);
            Live::tell($production->id, Topic::Clips);
            Live::tell($production->id, Topic::Takes);
        }

        return $changed;
    }

    /**
     * The whole card is another device's; so are its clips.
     *
     * @param  string|null  $was  the letter that the person saw
     * @return int clips that changed
     *
     * @throws Problem if somebody changed it meanwhile
     */
    public function card(Production $production, User $user, Card $card, ?string $was, ?Device $device): int
    {
        return DB::transaction(function () use ($production, $user, $card, $was, $device): int {
            $locked = Card::query()->with('device')->lockForUpdate()->findOrFail($card->id);
            if ($locked->device?->letter !== $was) {
                throw Problem::editedMeanwhile('the device of ' . $locked->roll, [
                    ['field' => 'device', 'yours' => $device?->letter, 'theirs' => $locked->device?->letter],
                ]);
            }

            return $this($production, $user, $locked->clips()->get(), $device, $locked);
        });
    }
}
