<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

use Cartella\Core\Lineup\Exception\InvalidLineup;

/** The ways in which a clip finds its place; each is recorded on the placement it made. */
enum Way: string
{
    case Sound = 'sound';
    case Timecode = 'timecode';
    case Clock = 'clock';
    case Mark = 'mark';
    case In = 'in';
    case Out = 'out';
    case Start = 'start';
    case Hand = 'hand';

    /** The ways that the engine can go by itself; `hand` is a person's. */
    public static function parse(string $text): self
    {
        $way = self::tryFrom($text);

        return $way === null || $way === self::Hand ? throw InvalidLineup::way($text) : $way;
    }
}
