<?php

declare(strict_types=1);

namespace App\Domain\Screening;

/** Where the takes of a review reel come from. */
enum ReelFrom: string
{
    /** Of one day or several, by their ULIDs. */
    case Days = 'days';
    /** Of scenes, by their names, on whatever day they were shot. */
    case Scenes = 'scenes';
    /** What lies in a bin, by its key; a bin that fills itself is asked again each time. */
    case Bin = 'bin';
    /** These and no others, by their ULIDs. */
    case Takes = 'takes';
}
