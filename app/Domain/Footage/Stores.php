<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Card;
use App\Models\CardCopy;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Store;
use App\Support\Problem;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** The volumes that a production's copies go to, and where on them a card or a clip lies. */
final class Stores
{
    /** @return Collection<string, Store> by key, in their order; with those that are no longer copied to, whose copies are still read */
    public function known(Production $production): Collection
    {
        $stores = $this->rows($production);
        if ($stores->isEmpty()) {
            $this->adopt($production);
            $stores = $this->rows($production);
        }

        return $stores;
    }

    /** @return Collection<string, Store> those that cards are copied to, there or not */
    public function inUse(Production $production): Collection
    {
        return $this->known($production)->filter(static fn(Store $store): bool => $store->retired_at === null);
    }

    /** @return Collection<string, Store> */
    private function rows(Production $production): Collection
    {
        return Store::query()
            ->where('production_id', $production->id)
            ->orderBy('position')
            ->orderBy('id')
            ->get()
            ->keyBy(static fn(Store $store): string => $store->key);
    }

    /** A production that has none yet begins with the volumes of the settings file. */
    private function adopt(Production $production): void
    {
        $position = 0;
        foreach ((array) config('cartella.stores') as $key => $store) {
            DB::table('stores')->insertOrIgnore([
                'ulid' => (string) Str::ulid(),
                'production_id' => $production->id,
                'key' => $key,
                'name' => $store['name'],
                'path' => $store['path'],
                'mark' => self::mark($store['path'], $store['name']),
                'position' => $position++,
                'created_at' => now(),
                'updated_at' => now(),
            ]);
        }
    }

    /** Gives the volume at a path its marker, or takes the one that it has. */
    public static function mark(string $path, string $name): string
    {
        $mark = Store::markIn($path) ?? (string) Str::ulid();
        if (is_dir($path) && Store::markIn($path) === null) {
            @file_put_contents(
                $path . '/' . Store::MARKER,
                json_encode(
                    [
                        'id' => $mark,
                        'name' => $name,
                        'what' => 'Copies of camera cards are kept here by Cartella; without this file nothing is written.',
                    ],
                    JSON_THROW_ON_ERROR,
                ) . "\n",
            );
        }

        return $mark;
    }

    /**
     * Those that a card is to be copied to.
     *
     * @return Collection<string, Store>
     */
    public function chosenFor(Card $card): Collection
    {
        $stores = $this->inUse($card->production);

        return $card->chosen_stores === null
            ? $stores
            : $stores->filter(static fn(Store $store): bool => in_array($store->key, $card->chosen_stores, true));
    }

    /**
     * Below a store's root: where a card lands, by the production's template; a card that has copies stays with them.
     *
     * @return array{below: string, name: string}
     */
    public static function placeOf(Production $production, ShootDay $day, ?Device $device, string $roll, ?Card $card = null): array
    {
        $path = $card?->copies->first()?->path;

        return $path !== null
            ? ['below' => dirname($path) === '.' ? '' : dirname($path), 'name' => basename($path)]
            : PathTemplate::parse($production->card_template ?? PathTemplate::DEFAULT)->expand([
                'production' => $production->name,
                'day' => sprintf('Day %02d', $day->number),
                'date' => $day->date->format('Y-m-d'),
                'unit' => $day->unit,
                'device' => $device === null ? 'Imports' : $device->letter,
                'kind' => $device === null ? 'imports' : $device->kind,
                'roll' => $roll,
            ]);
    }

    /**
     * The other card, of any production, whose copy lies in a folder of the same volumes.
     *
     * @param  Collection<string, Store>  $stores
     */
    public static function otherIn(Collection $stores, string $path, ?Card $own): ?Card
    {
        $marks = Store::query()->whereIn('mark', $stores->pluck('mark'))->get();
        foreach ($marks as $store) {
            $copies = CardCopy::query()
                ->where('store', $store->key)
                ->whereRaw('LOWER(path) = ?', [mb_strtolower($path)])
                ->whereIn('card_id', Card::query()->where('production_id', $store->production_id)->select('id'))
                ->get();
            foreach ($copies as $copy) {
                if ($copy->card_id !== $own?->id) {
                    return Card::query()->with('production')->find($copy->card_id);
                }
            }
        }

        return null;
    }

    /** @throws Problem if two productions would lay their cards into one folder */
    public function refuseSharedTemplate(Production $production, string $template): void
    {
        if (str_contains($template, '{production}')) {
            return;
        }
        $other = Store::query()
            ->whereIn('mark', $this->known($production)->pluck('mark'))
            ->where('production_id', '!=', $production->id)
            ->first();
        if ($other !== null) {
            throw Problem::refused(
                'template.shared',
                'Another production copies to the same volumes, and cards of both could land in one folder.',
                'Put {production} into it.',
            );
        }
    }

    /** The first copy of a card's folder that can be reached now. */
    public function folderOf(Card $card): ?string
    {
        foreach ($card->copies as $copy) {
            $folder = $this->folderOfCopy($card, $copy);
            if ($folder !== null && is_dir($folder)) {
                return $folder;
            }
        }

        return null;
    }

    public function folderOfCopy(Card $card, CardCopy $copy): ?string
    {
        $store = $this->known($card->production)->get($copy->store);

        return $store === null ? null : $store->path . '/' . $copy->path;
    }

    /** @throws Problem if no copy of the clip can be reached */
    public function fileOf(Clip $clip): string
    {
        return $this->filesOf($clip)[0];
    }

    /**
     * Every file of the clip's recording, from one copy of its card.
     *
     * @return non-empty-list<string>
     *
     * @throws Problem if no copy has them all
     */
    public function filesOf(Clip $clip): array
    {
        foreach ($clip->card->copies ?? [] as $copy) {
            $folder = $this->folderOfCopy($clip->card, $copy);
            $files = array_map(static fn(string $path): string => $folder . '/' . $path, $clip->paths());
            if ($folder !== null && array_filter($files, is_file(...)) === $files) {
                return $files;
            }
        }
        throw Problem::missing('The file of ' . $clip->name, 'Connect one of the volumes that hold its card.');
    }
}
