<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

/** The two ends of an item. */
enum Edge: string
{
    case Head = 'head';
    case Tail = 'tail';
}
