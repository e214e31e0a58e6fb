<?php

declare(strict_types=1);

namespace Cartella\Core\Fields;

/** What the floor said of a take. */
enum TakeStatus: string
{
    case None = 'none';
    case Circled = 'circled';
    case Hold = 'hold';
    case NoGood = 'ng';

    /** As reports and lists write it; nothing where nothing was said. */
    public function word(): string
    {
        return match ($this) {
            self::None => '',
            self::NoGood => 'NG',
            default => $this->value,
        };
    }
}
