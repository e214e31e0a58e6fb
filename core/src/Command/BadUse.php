<?php

declare(strict_types=1);

namespace Cartella\Core\Command;

use Cartella\Core\Failure;

/** A command line that cannot be understood. */
final class BadUse extends Failure
{
    public static function because(string $why): self
    {
        return new self($why, 'command.usage', 'See cartella-core help.');
    }
}
