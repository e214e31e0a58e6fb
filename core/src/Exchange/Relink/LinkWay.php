<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Relink;

/** How an event of a list found its clip; the surest first. */
enum LinkWay: string
{
    case Own = 'own';
    case Hash = 'hash';
    case Timecode = 'timecode';
    case Name = 'name';
    case Hand = 'hand';
    case None = 'none';
}
