<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Media\MediaNames;

/** Whether a card that comes again under its name has gone on, or was wiped and used for something else. */
final readonly class CardUse
{
    /** @param  int  $known  files of the volume that the card had before, by path and size */
    private function __construct(public int $known, public bool $goesOn) {}

    /**
     * Rubbish like an index file is on every card: only clips tell that a card goes on, if it had any.
     *
     * @param  array<string, int>  $now  bytes by path, of the volume
     * @param  array<string, int>  $before  bytes by path, of what was copied from the card
     */
    public static function of(array $now, array $before): self
    {
        $common = array_intersect_assoc($now, $before);
        $isClip = static fn(int|string $path): bool => MediaNames::isClip((string) $path);
        $hadClips = array_filter(array_keys($before), $isClip) !== [];

        return new self(count($common), $hadClips ? array_filter(array_keys($common), $isClip) !== [] : $common !== []);
    }
}
