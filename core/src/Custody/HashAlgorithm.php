<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\InvalidCustody;

/**
 * The checksums that a manifest may carry, by the element names of ASC MHL 2.0; values are what PHP's `hash` calls
 * them. XXH3 and XXH32 are read from manifests of others and never written.
 */
enum HashAlgorithm: string
{
    case Xxh128 = 'xxh128';
    case Xxh3 = 'xxh3';
    case Xxh64 = 'xxh64';
    case Xxh32 = 'xxh32';
    case Md5 = 'md5';
    case Sha1 = 'sha1';

    /** @throws InvalidCustody for any other name than those an offload may use */
    public static function parse(string $name): self
    {
        $algorithm = self::tryFrom($name);

        return in_array($algorithm, [null, self::Xxh3, self::Xxh32], true) ? throw InvalidCustody::hash($name) : $algorithm;
    }

    public function of(string $bytes): string
    {
        return hash($this->value, $bytes);
    }
}
