<?php

declare(strict_types=1);

namespace App\Support;

/** What an open page can be told has changed; `ui/api/queries.ts` knows which answers each of them makes old. */
enum Topic: string
{
    case Tasks = 'tasks';
    case Cards = 'cards';
    case Takes = 'takes';
    case Lineup = 'lineup';
    case Lanes = 'lanes';
    case Bins = 'bins';
    case Sequences = 'sequences';
    case Notes = 'notes';
    case Handoffs = 'handoffs';
    case Clips = 'clips';
    case Spoken = 'spoken';
    case Patterns = 'patterns';
    case Looks = 'looks';
    case Here = 'here';
    case Settings = 'settings';
}
