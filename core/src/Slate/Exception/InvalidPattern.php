<?php

declare(strict_types=1);

namespace Cartella\Core\Slate\Exception;

use Cartella\Core\Failure;

/** A spelling of slates, or a pattern of names, that cannot be used as it is written. */
final class InvalidPattern extends Failure
{
    public static function slate(string $text, string $why): self
    {
        return new self(
            sprintf('The slate pattern "%s" cannot be used: %s.', self::quote($text), $why),
            'slate.pattern',
            'Write the fields in braces, such as {setup}-{t}{take}.',
            ['pattern' => self::quote($text)],
        );
    }

    public static function name(string $text, string $why): self
    {
        return new self(
            sprintf('The name pattern "%s" cannot be used: %s.', self::quote($text), $why),
            'name.pattern',
            'Write the fields in braces, such as {setup}-{take:2} {device}.',
            ['pattern' => self::quote($text)],
        );
    }
}
