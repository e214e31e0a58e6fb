<?php

declare(strict_types=1);

namespace Cartella\Core\Footage;

/** What a reference names. */
enum ReferenceKind: string
{
    case Clip = 'clip';
    case Take = 'take';
    case Sequence = 'sequence';
    /** A reference that has a name of its own: a subclip, or channels of a recording. */
    case Subclip = 'subclip';
}
