<?php

declare(strict_types=1);

namespace Cartella\Core\Custody\Exception;

use Cartella\Core\Custody\PathTemplate;
use Cartella\Core\Failure;

/** An offload or check that cannot be asked for. */
final class InvalidCustody extends Failure
{
    public static function hash(string $name): self
    {
        return new self(
            sprintf('"%s" is not a checksum that is known here.', self::quote($name)),
            'custody.hash',
            'Use xxh128, xxh64, md5 or sha1.',
            ['hash' => self::quote($name)],
        );
    }

    public static function destinations(string $why): self
    {
        return new self(
            'The destinations cannot be used: ' . $why . '.',
            'custody.destination',
            'Name one or more different folders outside the source.',
        );
    }

    public static function template(string $why): self
    {
        return new self(
            'Cards cannot land there: ' . $why . '.',
            'custody.template',
            'Use folders with ' . implode(' ', array_map(static fn(string $word): string => '{' . $word . '}', PathTemplate::WORDS)) . '.',
        );
    }
}
