<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Clip;
use Cartella\Core\Custody\PathTemplate;

/**
 * Where each clip lies in a package. No two clips have one path, also not for systems that take capitals or the two ways
 * of writing an accent for the same; the first to ask has the plain name, so clips are asked for in the order of their ids.
 * Media lie in folders as the plan says, under the names that a pattern gave.
 */
final class PackagePaths
{
    /** @var array<int, string> by the clip's id */
    private array $paths = [];

    /** @var array<int, string> by the clip's id */
    private array $originals = [];

    /** @var array<string, true> by folded path */
    private array $taken = [];

    /**
     * @param  'flat'|'day'|'scene'|'device'  $folders
     * @param  array<string, string>  $names  that a pattern gave, by the clips' ULIDs
     */
    public function __construct(private readonly string $folders = 'flat', private readonly array $names = []) {}

    public function of(Clip $clip): string
    {
        return $this->paths[$clip->id] ??= $this->free($this->plain($clip));
    }

    /** Where the recording itself lies: below its card, as on the card. */
    public function original(Clip $clip): string
    {
        $folder = 'originals/' . PathTemplate::plain($clip->card->roll ?? 'import');
        $path = $folder . '/' . implode('/', array_map(PathTemplate::plain(...), explode('/', $clip->path)));
        $parts = pathinfo($path);

        return $this->originals[$clip->id] ??= $this->free([$parts['dirname'], $parts['filename'], $parts['extension'] ?? 'bin']);
    }

    /** @return array{string, string, string} folder, name, extension */
    private function plain(Clip $clip): array
    {
        // The roll keeps most cameras' names apart.
        $given = $this->names[$clip->ulid] ?? '';
        $name =
            $given === ''
                ? PathTemplate::plain($clip->card->roll ?? 'import') . '_' . PathTemplate::plain($clip->name)
                : PathTemplate::plain($given);
        $below = $this->below($clip);

        return match (true) {
            $clip->import_kind !== null => ['imports', $name, PathTemplate::plain(pathinfo($clip->path, PATHINFO_EXTENSION))],
            $clip->isSound() => ["sound$below", $name, 'wav'],
            default => ["proxies$below", $name, 'mp4'],
        };
    }

    private function below(Clip $clip): string
    {
        $folder = match ($this->folders) {
            'day' => 'Day ' . $clip->day->number,
            'scene' => $clip->take->scene ?? 'no scene',
            'device' => $clip->device->letter ?? 'no device',
            default => '',
        };

        return $folder === '' ? '' : '/' . PathTemplate::plain($folder);
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
