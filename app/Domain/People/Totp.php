<?php

declare(strict_types=1);

namespace App\Domain\People;

/**
 * One-time codes by the clock (RFC 6238 over RFC 4226): HMAC-SHA-1, steps of 30 s, six digits, as every authenticator takes
 * them without a setting. Secrets are 20 random bytes, written to the base 32 (RFC 4648). No package for it is in the registry.
 */
final class Totp
{
    private const STEP_SECONDS = 30;

    private const DIGITS = 6;

    /** Steps before and after now that are taken: a clock may be half a minute off. */
    private const WINDOW = 1;

    private const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    public static function secret(): string
    {
        $bits = '';
        foreach (str_split(random_bytes(20)) as $byte) {
            $bits .= sprintf('%08b', ord($byte));
        }

        return implode('', array_map(static fn(string $five): string => self::ALPHABET[bindec($five)], str_split($bits, 5)));
    }

    /** @param  int  $at  Unix seconds */
    public static function code(string $secret, int $at): string
    {
        return self::codeOfStep($secret, intdiv($at, self::STEP_SECONDS));
    }

    /**
     * The step that a code is of; a step at or before the last that was used counts no more, so that no code is taken twice.
     *
     * @param  int  $at  Unix seconds
     */
    public static function step(string $secret, string $code, int $at, ?int $lastStep): ?int
    {
        $now = intdiv($at, self::STEP_SECONDS);
        for ($step = $now - self::WINDOW; $step <= $now + self::WINDOW; $step++) {
            if (($lastStep === null || $step > $lastStep) && hash_equals(self::codeOfStep($secret, $step), $code)) {
                return $step;
            }
        }

        return null;
    }

    /** What an authenticator reads from the square: the key URI that they agree on. */
    public static function address(string $secret, string $email): string
    {
        return sprintf(
            'otpauth://totp/%s:%s?secret=%s&issuer=%s',
            rawurlencode('Cartella'),
            rawurlencode($email),
            $secret,
            rawurlencode('Cartella'),
        );
    }

    private static function codeOfStep(string $secret, int $step): string
    {
        $hash = hash_hmac('sha1', pack('J', $step), self::bytes($secret), true);
        $offset = ord($hash[19]) & 0xf;
        $number = unpack('N', $hash, $offset)[1] & 0x7fffffff;

        return sprintf('%0' . self::DIGITS . 'd', $number % 10 ** self::DIGITS);
    }

    private static function bytes(string $secret): string
    {
        $bits = '';
        foreach (str_split(strtoupper($secret)) as $letter) {
            $bits .= sprintf('%05b', (int) strpos(self::ALPHABET, $letter));
        }

        return implode(
            '',
            array_map(
                static fn(string $eight): string => chr((int) bindec($eight)),
                array_filter(str_split($bits, 8), static fn(string $eight): bool => strlen($eight) === 8),
            ),
        );
    }
}
