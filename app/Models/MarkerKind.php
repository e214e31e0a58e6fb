<?php

declare(strict_types=1);

namespace App\Models;

/** Who said a marker. */
enum MarkerKind: string
{
    /** The recording's own file; read again when it is catalogued again. */
    case File = 'file';
    case Person = 'person';
}
