<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** What a track holds. */
enum TrackKind: string
{
    case Picture = 'picture';
    case Sound = 'sound';
}
