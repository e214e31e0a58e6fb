<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Failure;

/** An operation that would break a rule of the cut; nothing was changed. */
final class Refused extends Failure
{
    public static function because(string $why): self
    {
        return new self($why, 'cut.refused', 'Nothing was changed.');
    }
}
