<?php

declare(strict_types=1);

namespace App\Domain\Screening;

/** Which pictures of a take a review reel shows. */
enum ReelAngles: string
{
    /** Of the first camera that saw it. */
    case First = 'first';
    /** Of the camera that saw most of it. */
    case Best = 'best';
    /** Of one device, by its letter; takes that it did not see are not shown. */
    case Device = 'device';
    /** All of them, one after the other. */
    case Each = 'each';
    /** All of them at once, in step. */
    case Together = 'together';

    /** In a sentence about a reel. */
    public function words(?string $device): string
    {
        return match ($this) {
            self::First => 'first camera',
            self::Best => 'the camera that saw most',
            self::Device => "camera $device",
            self::Each => 'every angle in turn',
            self::Together => 'all angles at once',
        };
    }
}
