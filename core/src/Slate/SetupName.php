<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/**
 * A setup in letter style, taken apart: `A12ptB` is prefix `A`, number 12, suffix `pt`, letters `B`.
 *
 * Letters skip I and O, which read as 1 and 0 on a slate; after Z come AA, AB…. Suffixes are two or three small letters.
 */
final readonly class SetupName
{
    private const PATTERN = '/\A(?<prefix>[A-Z]?)0*(?<number>[1-9]\d{0,3})(?<suffix>(?:[a-z]{2,3})?)-?(?<letters>[A-Za-z]{0,2})\z/';

    private function __construct(public string $prefix, public int $number, public string $suffix, public string $letters) {}

    /** @return self|null null when the text is not a setup, or uses I or O */
    public static function parse(string $text): ?self
    {
        if (preg_match(self::PATTERN, $text, $part) !== 1) {
            return null;
        }
        $letters = strtoupper($part['letters']);
        if (strpbrk($part['prefix'] . $letters, 'IO') !== false || ($part['letters'] !== $letters && strlen($letters) > 1)) {
            return null;
        }

        return new self($part['prefix'], (int) $part['number'], $part['suffix'], $letters);
    }

    public function scene(): string
    {
        return $this->prefix . $this->number . $this->suffix;
    }

    public function label(): string
    {
        return $this->scene() . $this->letters;
    }

    /**
     * Text that sorts as slates do when compared byte by byte: by number, a prefixed scene before its own number, then
     * suffix, letters (Z before AA), take, and the letter of a series take.
     */
    public function sortKey(?int $take = null, string $part = ''): string
    {
        return sprintf(
            '%05d.%s.%-3s.%d%-2s.%04d%s',
            $this->number,
            $this->prefix === '' ? '~' : $this->prefix,
            $this->suffix,
            strlen($this->letters),
            $this->letters,
            min(9999, $take ?? 0),
            $part,
        );
    }
}
