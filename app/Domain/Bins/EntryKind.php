<?php

declare(strict_types=1);

namespace App\Domain\Bins;

/** What can lie in a bin; each has its table, and clips under it. */
enum EntryKind: string
{
    case Take = 'take';
    case Clip = 'clip';
    case Subclip = 'subclip';
    case Sequence = 'sequence';

    public function table(): string
    {
        return "{$this->value}s";
    }

    /** What people call one. */
    public function word(): string
    {
        return match ($this) {
            self::Take => 'a take',
            self::Clip => 'a clip',
            self::Subclip => 'a subclip',
            self::Sequence => 'a cut or reel',
        };
    }
}
