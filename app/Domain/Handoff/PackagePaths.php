<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Clip;
use Cartella\Core\Custody\PathTemplate;

/**
 * Where each clip lies in a package. No two clips have one path, also not for systems that take capitals or the two ways
 * of writing an accent for the same; the first to ask has the plain name, so clips are asked for in the order of their ids.
 */
final class PackagePaths
{
    /** @var array<int, string> by the clip's id */
    private array $paths = [];

    /** @var array<string, true> by folded path */
    private array $taken = [];

    public function of(Clip $clip): string
    {
        return $this->paths[$clip->id] ??= $this->free(self::plain($clip));
    }

    /** @return array{string, string, string} folder, name, extension */
    private static function plain(Clip $clip): array
    {
        // The roll keeps most cameras' names apart.
        $name = PathTemplate::plain($clip->card->roll ?? 'import') . '_' . PathTemplate::plain($clip->name);

        return match (true) {
            $clip->import_kind !== null => ['imports', $name, PathTemplate::plain(pathinfo($clip->path, PATHINFO_EXTENSION))],
            $clip->isSound() => ['sound', $name, 'wav'],
            default => ['proxies', $name, 'mp4'],
        };
    }

    /** @param  array{string, string, string}  $wish */
    private function free(array $wish): string
    {
        [$folder, $name, $extension] = $wish;
        for ($number = 1; ; $number++) {
            $path = sprintf('%s/%s%s.%s', $folder, $name, $number === 1 ? '' : "_$number", $extension);
            $folded = mb_strtolower((string) \Normalizer::normalize($path, \Normalizer::FORM_C));
            if (!isset($this->taken[$folded])) {
                $this->taken[$folded] = true;

                return $path;
            }
        }
    }
}
