<?php

declare(strict_types=1);

namespace Cartella\Core\Look\Exception;

use Cartella\Core\Failure;

/** A colour correction that cannot be: a file that is none, or numbers that no correction has. */
final class InvalidLook extends Failure
{
    public static function file(string $why): self
    {
        return new self('The look cannot be read: ' . $why . '.', 'look.file', 'A look is an ASC CDL file: .cc, .ccc or .cdl.');
    }

    public static function value(string $field, string $why): self
    {
        return new self(
            sprintf('%s %s.', ucfirst($field), $why),
            'look.value',
            'Slope and saturation are 0 or more, power is more than 0.',
            ['field' => $field],
        );
    }
}
