<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Exception;

use Cartella\Core\Failure;

/** A sequence that cannot be: what the JSON lacks, or which item breaks a rule. */
final class InvalidSequence extends Failure
{
    /** Whether it is well-formed and only says what no cut can hold, such as an item that lasts no time. */
    public bool $isOfRange = false;

    public static function range(string $where, string $why): self
    {
        $broken = self::field($where, $why);
        $broken->isOfRange = true;

        return $broken;
    }

    public static function field(string $where, string $why): self
    {
        return new self(
            sprintf('The sequence cannot be used: %s %s.', self::quote($where), $why),
            'sequence.invalid',
            'See docs/formats.md for the shape of a sequence.',
            ['where' => self::quote($where)],
        );
    }
}
