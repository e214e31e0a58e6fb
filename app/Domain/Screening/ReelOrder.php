<?php

declare(strict_types=1);

namespace App\Domain\Screening;

/** In which order a review reel shows its takes, until somebody arranges them by hand. */
enum ReelOrder: string
{
    case Slate = 'slate';
    case Shot = 'shot';

    /** In a sentence about a reel. */
    public function words(): string
    {
        return $this === self::Slate ? 'in slate order' : 'as shot';
    }
}
