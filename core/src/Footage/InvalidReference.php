<?php

declare(strict_types=1);

namespace Cartella\Core\Footage;

use Cartella\Core\CartellaException;
use Cartella\Core\Failure;

/** What was given names nothing that could be there. */
final class InvalidReference extends Failure implements CartellaException
{
    /** @param  string  $rule  a clause without a full stop */
    public static function because(string $rule): self
    {
        return new self("That names nothing: $rule.", 'reference.invalid', 'Load the page again.');
    }
}
