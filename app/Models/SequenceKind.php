<?php

declare(strict_types=1);

namespace App\Models;

/** What a sequence is for. */
enum SequenceKind: string
{
    /** Takes one after the other, for watching; made by a recipe, again when takes change. */
    case Reel = 'reel';
    case StringOut = 'string_out';
    case Cut = 'cut';
    /** Cut between the angles of one event. */
    case AngleCut = 'angle_cut';
    /** Came back from the editing team. */
    case Received = 'received';

    /** In a sentence, after an article. */
    public function called(): string
    {
        return match ($this) {
            self::Reel => 'reel',
            self::StringOut => 'string-out',
            self::Cut => 'cut',
            self::AngleCut => 'cut between angles',
            self::Received => 'cut that came back',
        };
    }
}
