<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\InvalidCustody;

/**
 * The checksums that a manifest may carry, by the element names of ASC MHL 2.0. XXH3, XXH32 and C4 are read from
 * manifests of others and never written.
 */
enum HashAlgorithm: string
{
    case Xxh128 = 'xxh128';
    case Xxh3 = 'xxh3';
    case Xxh64 = 'xxh64';
    case Xxh32 = 'xxh32';
    case Md5 = 'md5';
    case Sha1 = 'sha1';
    case C4 = 'c4';

    /** @throws InvalidCustody for any other name than those an offload may use */
    public static function parse(string $name): self
    {
        $algorithm = self::tryFrom($name);

        return $algorithm === null || !$algorithm->isWritten() ? throw InvalidCustody::hash($name) : $algorithm;
    }

    /** Whether an offload may write it. */
    public function isWritten(): bool
    {
        return !in_array($this, [self::Xxh3, self::Xxh32, self::C4], true);
    }

    public function of(string $bytes): string
    {
        $hash = $this->begin();
        hash_update($hash, $bytes);

        return $this->end($hash);
    }

    /** @return string|null null when the file cannot be read to its end */
    public function ofFile(string $path): ?string
    {
        $hash = @hash_file($this->name(), $path, $this === self::C4);

        return $hash === false ? null : ($this === self::C4 ? C4::encode($hash) : $hash);
    }

    /** A running checksum, for {@see hash_update} and {@see end}. */
    public function begin(): \HashContext
    {
        return hash_init($this->name());
    }

    /** The checksum as a manifest writes it: hexadecimal, or a C4 identifier. */
    public function end(\HashContext $hash): string
    {
        return $this === self::C4 ? C4::encode(hash_final($hash, true)) : hash_final($hash);
    }

    /** What PHP's `hash` calls it; a C4 identifier is made of a SHA-512 (SMPTE ST 2114). */
    private function name(): string
    {
        return $this === self::C4 ? 'sha512' : $this->value;
    }
}
