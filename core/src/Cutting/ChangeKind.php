<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting;

/** What became of an item from one cut to the next. */
enum ChangeKind: string
{
    case New = 'new';
    case Gone = 'gone';
    case Moved = 'moved';
    case Longer = 'longer';
    case Shorter = 'shorter';
    case Slipped = 'slipped';
    case Speed = 'speed';
}
