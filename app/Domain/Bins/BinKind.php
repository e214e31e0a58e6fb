<?php

declare(strict_types=1);

namespace App\Domain\Bins;

/** Where a bin gets its clips from. */
enum BinKind
{
    case Scene;
    case Import;
    case Wild;
    case Own;
}
