<?php

declare(strict_types=1);

namespace App\Domain\Screening;

/** From where on a review reel shows each take. */
enum ReelBegin: string
{
    case Slate = 'slate';
    case Action = 'action';
    case Whole = 'whole';

    /** In a sentence about a reel. */
    public function words(): string
    {
        return match ($this) {
            self::Slate => 'from the slate',
            self::Action => 'from the action',
            self::Whole => 'whole',
        };
    }
}
