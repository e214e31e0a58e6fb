<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/** How media that came back were known to be those that went; the surest first. */
enum FoundBy: string
{
    /** Every byte is the same. */
    case Hash = 'hash';
    /** Its reel, its timecode and its length are the same, and those of no other. */
    case Timecode = 'timecode';
    /** Its name and its length are the same, and those of no other. */
    case Name = 'name';

    public function words(): string
    {
        return match ($this) {
            self::Hash => 'the checksum of every file',
            self::Timecode => 'reel, timecode and length',
            self::Name => 'name and length',
        };
    }
}
