<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use Cartella\Core\Media\MediaNames;

/**
 * What a bin is: of a scene, of a kind of import, the wild sound, or a folder that people made; the first three fill
 * themselves. Written `scene:12-14`, `import:music`, `sound:wild`, or the ULID of the folder.
 */
final readonly class BinKey
{
    public const LONGEST = 80;

    private function __construct(public BinKind $kind, public string $value) {}

    public static function scene(string $name): self
    {
        return new self(BinKind::Scene, $name);
    }

    public static function import(string $kind): self
    {
        return new self(BinKind::Import, $kind);
    }

    public static function wild(): self
    {
        return new self(BinKind::Wild, '');
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
            $kind === 'scene' && $value !== null && $value !== '' => self::scene($value),
            $kind === 'import' && in_array($value, MediaNames::IMPORTS, true) => self::import($value),
            $text === 'sound:wild' => self::wild(),
            $value === null && preg_match('/\A[0-9A-HJKMNP-TV-Z]{26}\z/i', $text) === 1 => self::own(strtoupper($text)),
            default => null,
        };
    }

    public function __toString(): string
    {
        return match ($this->kind) {
            BinKind::Scene => 'scene:' . $this->value,
            BinKind::Import => 'import:' . $this->value,
            BinKind::Wild => 'sound:wild',
            BinKind::Own => $this->value,
        };
    }
}
