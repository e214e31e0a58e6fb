<?php

declare(strict_types=1);

namespace App\Domain\Bins;

/** Where a bin gets what lies in it from. All but the last fill themselves. */
enum BinKind
{
    case All;
    case Scene;
    case Day;
    case Device;
    case Import;
    case Wild;
    /** What the recorders recorded with a slate or without, and sound that was brought in as such. */
    case Sound;
    case NoSlate;
    /** Imports of a kind that other productions share. */
    case Library;
    case Own;
}
