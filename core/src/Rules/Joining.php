<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** How the parts of a group of a rule hold together. A group without parts demands nothing. */
enum Joining: string
{
    case All = 'all';
    case Any = 'any';
    case None = 'none';
}
