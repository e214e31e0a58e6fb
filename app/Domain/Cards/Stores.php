<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Support\Problem;

/** The places that copies go to, and where on them a card or a clip lies. */
final class Stores
{
    /** @return array<string, array{name: string, path: string}> by key */
    public function all(): array
    {
        return config('cartella.stores');
    }

    /** Below a store's root: `{production}/{day}/{device}`, the folder that a card's own folder lands in. */
    public static function below(Production $production, ShootDay $day, ?Device $device): string
    {
        return implode('/', [self::plain($production->name), sprintf('Day %02d', $day->number), $device === null ? 'Imports' : self::plain($device->letter)]);
    }

    /** A name that every file system takes. */
    public static function plain(string $name): string
    {
        $plain = trim((string) preg_replace('/[^\p{L}\p{N} _.()-]+/u', '_', mb_scrub($name)), ' .');

        return $plain === '' ? '_' : mb_substr($plain, 0, 80);
    }

    public function freeBytes(string $key): ?int
    {
        $path = $this->all()[$key]['path'];
        while (! is_dir($path) && dirname($path) !== $path) {
            $path = dirname($path);
        }
        $free = @disk_free_space($path);

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
        foreach ($clip->card->copies ?? [] as $copy) {
            $file = ($this->all()[$copy->store]['path'] ?? '').'/'.$copy->path.'/'.$clip->path;
            if (is_file($file)) {
                return $file;
            }
        }
        throw Problem::missing('The file of '.$clip->name, 'Connect one of the volumes that hold its card.');
    }
}
