<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Undo\ChangeLog;
use App\Models\CardCopy;
use App\Models\Production;
use App\Models\Store;
use App\Models\User;
use App\Support\Audit;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** The volumes that a production's copies go to: added, named, ordered, retired; written down and undoable. */
final class EditStores
{
    public function __construct(private readonly Stores $stores) {}

    /** @throws Problem if it is no folder that can be written, or one of the desk's own, or there already */
    public function add(Production $production, User $user, string $name, string $path, ?string $address): Store
    {
        $real = self::checked($path);

        return DB::transaction(function () use ($production, $user, $name, $real, $address): Store {
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            $mark = Stores::mark($real, $name);
            if (Store::markIn($real) !== $mark) {
                throw Problem::refused(
                    'store.readonly',
                    'Nothing can be written there.',
                    'Check that the volume is mounted and writable by the desk.',
                );
            }
            foreach ($this->stores->known($production) as $other) {
                if ($other->mark === $mark || $other->name === $name) {
                    throw Problem::refused(
                        'store.there',
                        $other->mark === $mark ? "That volume is $other->name already." : "There is a volume $name already.",
                        'Choose another one, or bring that one back.',
                    );
                }
            }
            $store = new Store([
                'production_id' => $production->id,
                'key' => (string) Str::ulid(),
                'name' => $name,
                'path' => $real,
                'mark' => $mark,
                'position' => (int) $production->stores()->max('position') + 1,
            ]);
            $log = new ChangeLog();
            $log->save($store);
            $log->finish($production, $user, "Add the volume $name");
            Audit::write('setting_changed', $user->id, $production->id, ['volume' => $name, 'added' => $real], $address);
            Live::tell($production->id, Topic::Settings);

            return $store;
        });
    }

    /**
     * @param  array{name?: string, position?: int, retired?: bool, mark?: bool}  $values  `mark` makes whatever lies at its path now the
     *     volume that is meant
     */
    public function change(Production $production, User $user, Store $store, array $values, ?string $address): Store
    {
        return DB::transaction(function () use ($production, $user, $store, $values, $address): Store {
            /** @var \Illuminate\Database\Eloquent\Collection<int, Store> $all */
            $all = Store::query()->where('production_id', $production->id)->orderBy('position')->orderBy('id')->lockForUpdate()->get();
            $store = $all->firstOrFail(static fn(Store $one): bool => $one->id === $store->id);
            if (
                isset($values['name']) &&
                $all->contains(static fn(Store $one): bool => $one->id !== $store->id && $one->name === $values['name'])
            ) {
                throw Problem::refused('store.there', "There is a volume {$values['name']} already.", 'Choose another name.');
            }
            $log = new ChangeLog();
            if (array_key_exists('retired', $values)) {
                $store->retired_at = $values['retired'] ? $store->retired_at ?? now() : null;
            }
            if ($values['mark'] ?? false) {
                self::checked($store->path);
                $store->mark = Stores::mark($store->path, $store->name);
            }
            $store->fill(array_intersect_key($values, ['name' => true]));
            $log->save($store);
            if (isset($values['position'])) {
                $order = $all->reject(static fn(Store $one): bool => $one->id === $store->id)->values()->all();
                array_splice($order, $values['position'], 0, [$store]);
                foreach ($order as $position => $one) {
                    $one->position = $position;
                    $log->save($one);
                }
            }
            if ($log->finish($production, $user, 'Change the volume ' . $store->name) !== null) {
                Audit::write(
                    'setting_changed',
                    $user->id,
                    $production->id,
                    ['volume' => $store->name, 'what' => implode(', ', array_keys($values))],
                    $address,
                );
                Live::tell($production->id, Topic::Settings);
            }

            return $store;
        });
    }

    /** @return list<array<string, mixed>> with what lies at each path now */
    public function list(Production $production): array
    {
        return $this->stores
            ->known($production)
            ->map(
                static fn(Store $store): array => [
                    'ulid' => $store->ulid,
                    'key' => $store->key,
                    'name' => $store->name,
                    'path' => $store->path,
                    'is_there' => $store->isThere(),
                    'is_retired' => $store->retired_at !== null,
                    'device' => $store->device(),
                    'free_bytes' => $store->freeBytes(),
                    'total_bytes' => $store->isThere() ? (int) @disk_total_space($store->path) : null,
                    'is_other' => !$store->isThere() && is_dir($store->path),
                    'cards' => CardCopy::query()
                        ->where('store', $store->key)
                        ->whereHas('card', static fn($query) => $query->where('production_id', $production->id))
                        ->count(),
                ],
            )
            ->values()
            ->all();
    }

    /** @throws Problem */
    private static function checked(string $path): string
    {
        $real = str_starts_with($path, '/') ? realpath($path) : false;
        if ($real === false || !is_dir($real)) {
            throw Problem::refused(
                'store.folder',
                'There is no such folder on the machine that runs the desk.',
                'Give the whole path of a mounted volume, beginning with /.',
            );
        }
        // Copies in a folder that the desk, a card or the system uses would be lost, or lose something.
        $isOwn = static fn(string $folder): bool => ($folder = (string) realpath($folder)) !== '' &&
            str_starts_with($real . '/', $folder . '/');
        $isInStores = str_starts_with($real . '/', Folders::var('stores/'));
        $isForbidden =
            $real === '/' ||
            (preg_match('#\A/(proc|sys|dev|run|etc|usr|bin|sbin|lib|boot|var/lib|var/log)(/|\z)#', $real) === 1 &&
                !str_starts_with($real, '/dev/shm/') &&
                preg_match('#\A/run/(media|user)/#', $real) !== 1);
        if (
            $isForbidden ||
            (!$isInStores && ($isOwn(base_path()) || $isOwn(Folders::media()))) ||
            $isOwn(Folders::readers()) ||
            $isOwn(Folders::inbox())
        ) {
            throw Problem::refused('store.own', 'That folder belongs to the system or to the desk itself.', 'Choose a volume for copies.');
        }
        if (!is_writable($real)) {
            throw Problem::refused(
                'store.readonly',
                'Nothing can be written there.',
                'Check that the volume is mounted and writable by the desk.',
            );
        }

        return $real;
    }
}
