<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/** How a production names its setups: the scene with letters (`12A`), or a running slate number beside the scene. */
enum SlateStyle: string
{
    case Letter = 'letter';
    case Number = 'number';
}
