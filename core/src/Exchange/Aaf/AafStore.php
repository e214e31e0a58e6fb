<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * Objects of an AAF file as storages of a compound file (AAF stored format specification): each a storage with its class, a
 * stream of properties, and what it owns in storages below it. The class of an object stands in its storage.
 *
 * @internal
 */
final class AafStore
{
    /** Of a compound file: that it holds AAF, in sectors of 512 bytes. */
    private const KIND = '42464141-000d-4d4f-060e-2b34010101ff';

    private const BYTES = 0x82;

    private const OBJECT = 0x22;

    private const VECTOR = 0x32;

    private const SET = 0x3a;

    private const WEAK = 0x02;

    private const PROPERTIES = 'properties';

    private const WAYS = 'referenced properties';

    private const FREE = 0xffffffff;

    private const DEEPEST = 48;

    /** @var list<list<int>> */
    private array $ways = [];

    private int $count = 0;

    private function __construct() {}

    public static function write(AafObject $root): string
    {
        $storage = new CompoundEntry('Root Entry', Auid::bytes(self::KIND));
        (new self())->put($storage, $root);
        $ways = '';
        $numbers = 0;
        foreach (Model::WAYS as $way) {
            $ways .= pack('v*', ...$way, ...[0]);
            $numbers += count($way) + 1;
        }
        $storage->put(new CompoundEntry(self::WAYS, '', 'L' . pack('vV', count(Model::WAYS), $numbers) . $ways));

        return CompoundFile::write($storage);
    }

    private function put(CompoundEntry $storage, AafObject $object): void
    {
        $values = [];
        foreach ($object->bytes as $property => $bytes) {
            $values[$property] = [self::BYTES, $bytes];
        }
        foreach ($object->weak as $property => [$way, $key]) {
            $tag = (int) array_search($way, Model::WAYS, true);
            $values[$property] = [
                self::WEAK,
                pack('vvC', $tag, $way === Model::TO_CLASS ? Model::META_IDENTIFICATION : Model::DEFINITION_ID, 16) . $key,
            ];
        }
        foreach ($object->owned as $property => $one) {
            $name = self::name($property);
            $values[$property] = [self::OBJECT, self::wide($name)];
            $this->put($storage->put($this->storage($name, $one)), $one);
        }
        foreach ($object->vectors as $property => $list) {
            $name = self::name($property);
            $values[$property] = [self::VECTOR, self::wide($name)];
            $storage->put(
                new CompoundEntry("$name index", '', pack('V3', count($list), count($list), self::FREE) . pack('V*', ...array_keys($list))),
            );
            foreach ($list as $index => $one) {
                $this->put($storage->put($this->storage(sprintf('%s{%x}', $name, $index), $one)), $one);
            }
        }
        foreach ($object->sets as $property => [$list, $key]) {
            $name = self::name($property);
            $values[$property] = [self::SET, self::wide($name)];
            $index =
                pack('V3', count($list), count($list), self::FREE) . pack('vC', $key, strlen($list === [] ? '' : $list[0]->bytes[$key]));
            foreach ($list as $number => $one) {
                $index .= pack('VV', $number, 1) . $one->bytes[$key];
                $this->put($storage->put($this->storage(sprintf('%s{%x}', $name, $number), $one)), $one);
            }
            $storage->put(new CompoundEntry("$name index", '', $index));
        }
        ksort($values);
        $heads = $bodies = '';
        foreach ($values as $property => [$form, $bytes]) {
            $heads .= pack('v3', $property, $form, strlen($bytes));
            $bodies .= $bytes;
        }
        $storage->put(new CompoundEntry(self::PROPERTIES, '', 'L' . chr(0x20) . pack('v', count($values)) . $heads . $bodies));
    }

    private function storage(string $name, AafObject $object): CompoundEntry
    {
        return new CompoundEntry($name, Auid::bytes(Model::classId((string) $object->class)));
    }

    private static function name(int $property): string
    {
        return sprintf('%s-%x', Model::NAMES[$property], $property);
    }

    private static function wide(string $text): string
    {
        return mb_convert_encoding($text, 'UTF-16LE', 'UTF-8') . "\0\0";
    }

    /** @throws InvalidSequence if it is no such file */
    public static function read(string $bytes): AafObject
    {
        $storage = CompoundFile::read($bytes);
        $store = new self();
        $store->ways = self::waysIn($storage->stream(self::WAYS) ?? '');

        return $store->object($storage, 'Root', 0);
    }

    /** @return list<list<int>> */
    private static function waysIn(string $stream): array
    {
        if (($stream[0] ?? '') !== 'L') {
            throw CompoundFile::broken('holds no AAF in the byte order that is read');
        }
        $ways = [[]];
        foreach (array_slice(unpack('v*', substr($stream, 7)) ?: [], 0, 100_000) as $number) {
            if ($number === 0) {
                $ways[] = [];
            } else {
                $ways[count($ways) - 1][] = $number;
            }
        }

        return $ways;
    }

    private function object(CompoundEntry $storage, ?string $class, int $depth): AafObject
    {
        if ($depth > self::DEEPEST || ++$this->count > 150_000) {
            throw CompoundFile::broken('nests too deep');
        }
        $object = new AafObject($class);
        $stream = $storage->stream(self::PROPERTIES) ?? '';
        if (($stream[0] ?? '') !== 'L' || strlen($stream) < 4) {
            return $object;
        }
        $count = (unpack('v', substr($stream, 2, 2)) ?: [1 => 0])[1];
        $at = 4 + 6 * $count;
        for ($index = 0; $index < $count; $index++) {
            $head = strlen($stream) >= 10 + 6 * $index ? unpack('vproperty/vform/vlength', substr($stream, 4 + 6 * $index, 6)) : false;
            if ($head === false) {
                break;
            }
            $this->value($object, $storage, $head['property'], $head['form'], substr($stream, $at, $head['length']), $depth);
            $at += $head['length'];
        }

        return $object;
    }

    private function value(AafObject $object, CompoundEntry $storage, int $property, int $form, string $bytes, int $depth): void
    {
        if ($form === self::BYTES) {
            $object->bytes[$property] = $bytes;
        } elseif ($form === self::WEAK && strlen($bytes) > 5) {
            $tag = (unpack('v', $bytes) ?: [1 => 0])[1];
            $object->weak[$property] = [$this->ways[$tag] ?? [], substr($bytes, 5)];
        } elseif (in_array($form, [self::OBJECT, self::VECTOR, self::SET], true)) {
            $name = mb_scrub(
                mb_convert_encoding(substr($bytes, 0, max(0, strlen($bytes) - 2 - (strlen($bytes) % 2))), 'UTF-8', 'UTF-16LE'),
            );
            if ($form === self::OBJECT) {
                $one = $this->stored($storage, $name, $depth);
                if ($one !== null) {
                    $object->owned[$property] = $one;
                }

                return;
            }
            $list = [];
            foreach (self::keys($storage->stream("$name index") ?? '', $form === self::SET) as $key) {
                $one = $this->stored($storage, sprintf('%s{%x}', $name, $key), $depth);
                if ($one !== null) {
                    $list[] = $one;
                }
            }
            $form === self::SET ? $object->set($property, $list, 0) : $object->list($property, $list);
        }
    }

    private function stored(CompoundEntry $storage, string $name, int $depth): ?AafObject
    {
        $entry = $storage->entries[$name] ?? null;

        return $entry === null || $entry->bytes !== null
            ? null
            : $this->object($entry, Model::className(Auid::text(str_pad($entry->class, 16, "\0"))), $depth + 1);
    }

    /** @return list<int> local keys of an index, in its order */
    private static function keys(string $index, bool $isSet): array
    {
        $count = strlen($index) >= 12 ? (unpack('V', $index) ?: [1 => 0])[1] : 0;
        if (!$isSet) {
            return array_values(unpack('V*', substr($index, 12, 4 * min($count, strlen($index)))) ?: []);
        }
        $size = ord($index[14] ?? "\0");
        $keys = [];
        for ($at = 15; count($keys) < $count && $at + 8 + $size <= strlen($index); $at += 8 + $size) {
            $keys[] = (unpack('V', substr($index, $at, 4)) ?: [1 => 0])[1];
        }

        return $keys;
    }
}
