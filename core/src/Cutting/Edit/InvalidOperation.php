<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Failure;

/** What is no operation: an unknown name, or a field that is missing or of the wrong kind. */
final class InvalidOperation extends Failure
{
    public static function because(int $index, string $why): self
    {
        return new self(
            sprintf('Operation %d cannot be used: %s.', $index, $why),
            'cut.operation',
            'See docs/formats.md for the operations of a cut.',
            ['index' => $index],
        );
    }
}
