<?php

declare(strict_types=1);

namespace App\Models;

/** What a marker is about, where a person says so. */
enum MarkerAbout: string
{
    case Picture = 'picture';
    case Sound = 'sound';
    case Acting = 'acting';
    case Continuity = 'continuity';
    case Effects = 'effects';
    case Music = 'music';
}
