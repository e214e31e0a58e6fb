<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Relink;

use Cartella\Core\Cutting\Source;

/** A clip that an event of a list may mean: as a source of a cut, with every name that lists may know it by. */
final readonly class Candidate
{
    /**
     * @param  Source  $source  of the clip; its `reel` is the card's
     * @param  bool  $isSound  whether it has no pictures
     * @param  list<string>  $names  of the clip and of its files, with or without an extension
     * @param  list<string>  $hashes  of its file, such as `xxh128:…`
     * @param  string  $folder  what came in together with it: its card, or the folder of an import
     * @param  bool  $hasTimecode  whether its first label is known; else it counts from its first frame
     */
    public function __construct(
        public Source $source,
        public bool $isSound,
        public array $names,
        public array $hashes = [],
        public string $folder = '',
        public bool $hasTimecode = true,
    ) {}
}
