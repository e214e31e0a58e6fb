<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use Cartella\Core\Media\MediaNames;

/**
 * What a bin is: everything, of a scene, a day, a device, a kind, or one that people made; all but the last fill themselves. Written
 * `all`, `scene:12-14`, `day:` and its ULID, `device:A`, `import:music`, `sound:wild`, `sound:production`, `slate:none`,
 * `library:music`, or the ULID of the bin.
 */
final readonly class BinKey
{
    public const LONGEST = 80;

    private const ULID = '/\A[0-9A-HJKMNP-TV-Z]{26}\z/i';

    private function __construct(public BinKind $kind, public string $value) {}

    public static function all(): self
    {
        return new self(BinKind::All, '');
    }

    public static function scene(string $name): self
    {
        return new self(BinKind::Scene, $name);
    }

    public static function day(string $ulid): self
    {
        return new self(BinKind::Day, $ulid);
    }

    public static function device(string $letter): self
    {
        return new self(BinKind::Device, $letter);
    }

    public static function import(string $kind): self
    {
        return new self(BinKind::Import, $kind);
    }

    public static function wild(): self
    {
        return new self(BinKind::Wild, '');
    }

    public static function sound(): self
    {
        return new self(BinKind::Sound, '');
    }

    public static function noSlate(): self
    {
        return new self(BinKind::NoSlate, '');
    }

    public static function library(string $kind): self
    {
        return new self(BinKind::Library, $kind);
    }

    public static function own(string $ulid): self
    {
        return new self(BinKind::Own, $ulid);
    }

    /** @return self|null null for what no bin can be */
    public static function parse(string $text): ?self
    {
        [$kind, $value] = [...explode(':', $text, 2), null];

        return match (true) {
            $text === 'all' => self::all(),
            $kind === 'scene' && $value !== null && $value !== '' => self::scene($value),
            $kind === 'day' && $value !== null && preg_match(self::ULID, $value) === 1 => self::day(strtoupper($value)),
            $kind === 'device' && $value !== null && $value !== '' => self::device($value),
            $kind === 'import' && in_array($value, MediaNames::IMPORTS, true) => self::import($value),
            $kind === 'library' && in_array($value, MediaNames::IMPORTS, true) => self::library($value),
            $text === 'sound:wild' => self::wild(),
            $text === 'sound:production' => self::sound(),
            $text === 'slate:none' => self::noSlate(),
            $value === null && preg_match(self::ULID, $text) === 1 => self::own(strtoupper($text)),
            default => null,
        };
    }

    public function __toString(): string
    {
        return match ($this->kind) {
            BinKind::All => 'all',
            BinKind::Scene => 'scene:' . $this->value,
            BinKind::Day => 'day:' . $this->value,
            BinKind::Device => 'device:' . $this->value,
            BinKind::Import => 'import:' . $this->value,
            BinKind::Wild => 'sound:wild',
            BinKind::Sound => 'sound:production',
            BinKind::NoSlate => 'slate:none',
            BinKind::Library => 'library:' . $this->value,
            BinKind::Own => $this->value,
        };
    }
}
