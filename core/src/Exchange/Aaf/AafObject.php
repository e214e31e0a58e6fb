<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Time\Ticks;

/**
 * An object of an AAF file: its class and its properties by their number, as bytes, objects or references. Getters answer null
 * for what is not there or is of another form.
 *
 * @internal
 */
final class AafObject
{
    /** @var array<int, string> */
    public array $bytes = [];

    /** @var array<int, self> */
    public array $owned = [];

    /** @var array<int, list<self>> */
    public array $vectors = [];

    /** @var array<int, array{list<self>, int}> with the number of the property that tells its members apart */
    public array $sets = [];

    /** @var array<int, array{list<int>, string}> by the way to the set, and the key in it */
    public array $weak = [];

    /** @param  string|null  $class  by name; null for one that is not known */
    public function __construct(public readonly ?string $class) {}

    public static function of(string $class): self
    {
        return new self($class);
    }

    public function raw(int $property, string $bytes): self
    {
        $this->bytes[$property] = $bytes;

        return $this;
    }

    public function words(int $property, string $text): self
    {
        return $this->raw($property, self::wide($text));
    }

    public function long(int $property, int $value): self
    {
        return $this->raw($property, pack('P', $value));
    }

    public function whole(int $property, int $value): self
    {
        return $this->raw($property, pack('V', $value));
    }

    public function small(int $property, int $value): self
    {
        return $this->raw($property, pack('v', $value));
    }

    public function flag(int $property, bool $is): self
    {
        return $this->raw($property, chr((int) $is));
    }

    public function rational(int $property, int $num, int $den): self
    {
        return $this->raw($property, pack('VV', $num, $den));
    }

    /** @param  int  $moment  Unix time */
    public function moment(int $property, int $moment): self
    {
        [$year, $month, $day, $hour, $minute, $second] = array_map(intval(...), explode(' ', gmdate('Y n j G i s', $moment)));

        return $this->raw($property, pack('vC6', $year, $month, $day, $hour, $minute, $second, 0));
    }

    public function has(int $property, self $object): self
    {
        $this->owned[$property] = $object;

        return $this;
    }

    /** @param  list<self>  $objects */
    public function list(int $property, array $objects): self
    {
        if ($objects !== []) {
            $this->vectors[$property] = $objects;
        }

        return $this;
    }

    /** @param  list<self>  $objects */
    public function set(int $property, array $objects, int $key): self
    {
        $this->sets[$property] = [$objects, $key];

        return $this;
    }

    /** @param  list<int>  $way */
    public function refers(int $property, array $way, string $key): self
    {
        $this->weak[$property] = [$way, $key];

        return $this;
    }

    /** Text in an indirect value: its type goes before it. */
    public static function saying(string $text): string
    {
        return 'L' . Auid::bytes(Model::STRING_TYPE) . self::wide($text);
    }

    public function int(int $property): ?int
    {
        $bytes = $this->bytes[$property] ?? '';
        $value = match (strlen($bytes)) {
            1 => ord($bytes),
            2 => (unpack('v', $bytes) ?: [1 => null])[1],
            4 => (unpack('V', $bytes) ?: [1 => null])[1],
            8 => (unpack('P', $bytes) ?: [1 => null])[1],
            default => null,
        };

        return $value;
    }

    /** @return array{int, int}|null numerator and denominator, both above zero */
    public function ratio(int $property): ?array
    {
        return self::rationalOf($this->bytes[$property] ?? '', false);
    }

    /** @return array{int, int}|null */
    public static function rationalOf(string $bytes, bool $signed): ?array
    {
        $part = strlen($bytes) === 8 ? unpack('Vnum/Vden', $bytes) : false;
        if ($part === false) {
            return null;
        }
        $num = $part['num'] > 0x7fffffff ? $part['num'] - (1 << 32) : $part['num'];
        $den = $part['den'];

        return $den < 1 || $den > 0x7fffffff || (!$signed && $num < 1) ? null : [$num, $den];
    }

    public function text(int $property): ?string
    {
        return isset($this->bytes[$property]) ? self::narrow($this->bytes[$property]) : null;
    }

    /** The words of an indirect value; null if it is none of text. */
    public function said(int $property): ?string
    {
        $bytes = $this->bytes[$property] ?? '';

        return strlen($bytes) > 17 && substr($bytes, 1, 16) === Auid::bytes(Model::STRING_TYPE) ? self::narrow(substr($bytes, 17)) : null;
    }

    /** The key of a weak reference, as an identifier; null if there is none. */
    public function refersTo(int $property): ?string
    {
        $key = $this->weak[$property][1] ?? '';

        return strlen($key) === 16 ? Auid::text($key) : null;
    }

    /** @return list<self> of a vector or a set */
    public function all(int $property): array
    {
        return $this->vectors[$property] ?? ($this->sets[$property][0] ?? []);
    }

    /** Ticks of a count of edit units. */
    public static function ticks(int $units, int $num, int $den): int
    {
        // Counts come from files of others: what would leave 64 bits lies nowhere.
        return abs($units) > 1 << 45 ? 0 : Ticks::mulDivFloor($units, Ticks::PER_SECOND * $den, $num);
    }

    private static function wide(string $text): string
    {
        return mb_convert_encoding($text, 'UTF-16LE', 'UTF-8') . "\0\0";
    }

    private static function narrow(string $bytes): string
    {
        $text = mb_convert_encoding(substr($bytes, 0, strlen($bytes) - (strlen($bytes) % 2)), 'UTF-8', 'UTF-16LE');

        return (string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', mb_scrub(explode("\0", $text)[0]));
    }
}
