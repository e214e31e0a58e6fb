<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Undo\ChangeLog;
use App\Models\Device;
use App\Models\Production;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Adds, names, letters and retires the cameras and recorders of a production; every change one undoable step. */
final class EditDevices
{
    /** Lanes have colours and patterns of their own up to here. */
    public const COLOURS = 12;

    /**
     * @param  array{letter: string, kind: string, note?: string, colour?: int|null}  $values
     *
     * @throws Problem if the letter is taken
     */
    public function add(Production $production, User $user, array $values): Device
    {
        return DB::transaction(function () use ($production, $user, $values): Device {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            $this->refuseTaken($production, $values['letter'], null);
            $device = new Device(['production_id' => $production->id, 'lane' => (int) $production->devices()->max('lane') + 1] + $values);
            $log = new ChangeLog();
            $log->save($device);
            $log->finish($production, $user, 'Add ' . lcfirst($device->title()));
            Live::tell($production->id, Topic::Settings);

            return $device;
        });
    }

    /**
     * @param  array{letter?: string, kind?: string, note?: string, colour?: int|null, retired?: bool}  $values
     *
     * @throws Problem if the letter is taken
     */
    public function change(Production $production, User $user, Device $device, array $values): Device
    {
        return DB::transaction(function () use ($production, $user, $device, $values): Device {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            $device = Device::query()->lockForUpdate()->findOrFail($device->id);
            $log = new ChangeLog();
            $was = $device->letter;
            if (isset($values['letter']) && $values['letter'] !== $was) {
                $this->refuseTaken($production, $values['letter'], $device->id);
                $this->renameAbsent($production, $was, $values['letter'], $log);
            }
            if (array_key_exists('retired', $values)) {
                $device->retired_at = $values['retired'] ? $device->retired_at ?? now() : null;
            }
            $device->fill(array_intersect_key($values, array_flip(['letter', 'kind', 'note', 'colour'])));
            $log->save($device);
            $log->finish(
                $production,
                $user,
                match (true) {
                    $device->letter !== $was => "$was is now $device->letter",
                    $device->wasChanged('retired_at') => ($device->retired_at === null ? 'Bring back ' : 'Retire ') .
                        lcfirst($device->title()),
                    default => 'Change ' . lcfirst($device->title()),
                },
            );
            Live::tell($production->id, Topic::Settings);

            return $device;
        });
    }

    /** A device that did not roll on a take is named there by its letter. */
    private function renameAbsent(Production $production, string $was, string $now, ChangeLog $log): void
    {
        $takes = [];
        foreach (
            Take::query()->where('production_id', $production->id)->whereNotNull('absent_devices')->lockForUpdate()->lazyById(500)
            as $take
        ) {
            if (in_array($was, $take->absent_devices ?? [], true)) {
                $take->absent_devices = array_values(
                    array_map(static fn(string $letter): string => $letter === $was ? $now : $letter, $take->absent_devices),
                );
                $takes[] = $take;
            }
        }
        $log->saveAll($takes);
    }

    private function refuseTaken(Production $production, string $letter, ?int $exceptId): void
    {
        $other = $production
            ->devices()
            ->where('letter', $letter)
            ->when($exceptId !== null, static fn($query) => $query->whereKeyNot($exceptId))
            ->first();
        if ($other !== null) {
            throw Problem::refused(
                'device.taken',
                sprintf('There is a device %s already%s.', $letter, $other->retired_at === null ? '' : ', which is retired'),
                $other->retired_at === null ? 'Choose another letter or word.' : 'Bring that one back, or choose another letter.',
            );
        }
    }

    /** @return array<int, int> clips by the device's id */
    public static function clips(Production $production): array
    {
        return DB::table('clips')
            ->where('production_id', $production->id)
            ->whereNotNull('device_id')
            ->groupBy('device_id')
            ->selectRaw('device_id, COUNT(*) AS clips')
            ->pluck('clips', 'device_id')
            ->map(intval(...))
            ->all();
    }
}
