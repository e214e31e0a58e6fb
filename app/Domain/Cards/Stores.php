<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Support\Problem;
use Cartella\Core\Custody\PathTemplate;

/** The places that copies go to, and where on them a card or a clip lies. */
final class Stores
{
    /** @return array<string, array{name: string, path: string}> by key */
    public function all(): array
    {
        return config('cartella.stores');
    }

    /** @return array<string, array{name: string, path: string}> those whose folder is there now; a volume that is not mounted must not be made up */
    public function there(): array
    {
        return array_filter($this->all(), static fn (array $store): bool => is_dir($store['path']));
    }

    /**
     * Below a store's root: where a card lands, by the production's template; a card that has copies stays with them.
     *
     * @return array{below: string, name: string}
     */
    public static function placeOf(Production $production, ShootDay $day, ?Device $device, string $roll, ?Card $card = null): array
    {
        $path = $card?->copies->first()?->path;

        return $path !== null ? ['below' => dirname($path), 'name' => basename($path)] : PathTemplate::parse($production->card_template ?? PathTemplate::DEFAULT)->expand([
            'production' => $production->name, 'day' => sprintf('Day %02d', $day->number), 'date' => $day->date->format('Y-m-d'), 'unit' => $day->unit,
            'device' => $device === null ? 'Imports' : $device->letter, 'kind' => $device === null ? 'imports' : $device->kind, 'roll' => $roll,
        ]);
    }

    public function freeBytes(string $key): ?int
    {
        $free = @disk_free_space($this->all()[$key]['path']);

        return $free === false ? null : (int) $free;
    }

    /** The first copy of a card's folder that can be reached now. */
    public function folderOf(Card $card): ?string
    {
        foreach ($card->copies as $copy) {
            $folder = ($this->all()[$copy->store]['path'] ?? '').'/'.$copy->path;
            if (is_dir($folder)) {
                return $folder;
            }
        }

        return null;
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
            $folder = ($this->all()[$copy->store]['path'] ?? '').'/'.$copy->path;
            $files = array_map(static fn (string $path): string => $folder.'/'.$path, $clip->paths());
            if (array_filter($files, is_file(...)) === $files) {
                return $files;
            }
        }
        throw Problem::missing('The file of '.$clip->name, 'Connect one of the volumes that hold its card.');
    }
}
