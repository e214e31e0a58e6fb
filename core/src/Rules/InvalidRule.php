<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** A rule that asks for something that nobody can answer; its message says in a plain sentence for what. */
final class InvalidRule extends \InvalidArgumentException
{
    public static function because(string $sentence): self
    {
        return new self($sentence);
    }
}
