<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * Compound files (structured storage, [MS-CFB]): a tree of storages and streams in sectors of one file. Written in version 3
 * with sectors of 512 bytes, small streams of under 4 096 bytes in the mini stream; read in versions 3 and 4.
 *
 * What is read is hostile: chains that go round, sectors behind the end and trees that close on themselves are refused.
 */
final class CompoundFile
{
    /** Bytes of a file that is read; its media lie outside. */
    public const LARGEST = 48 << 20;

    private const SIGNATURE = "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1";

    private const SECTOR = 512;

    private const MINI = 64;

    private const CUTOFF = 4096;

    private const FREE = 0xffffffff;

    private const END = 0xfffffffe;

    private const FAT = 0xfffffffd;

    private const DIFAT = 0xfffffffc;

    private const IN_HEADER = 109;

    /** Characters of a name. */
    private const LONGEST_NAME = 31;

    public static function write(CompoundEntry $root): string
    {
        $rows = [];
        $mini = '';
        $miniNext = [];
        $sectors = '';
        $next = [];
        // Every entry once, its siblings in a balanced tree.
        $number = static function (CompoundEntry $entry) use (&$rows): int {
            $rows[] = ['entry' => $entry, 'left' => self::FREE, 'right' => self::FREE, 'child' => self::FREE, 'red' => false];

            return count($rows) - 1;
        };
        $place = static function (CompoundEntry $storage, int $at) use (&$place, &$rows, $number): void {
            $entries = array_values($storage->entries);
            usort($entries, self::order(...));
            $numbers = array_map($number, $entries);
            $rows[$at]['child'] = self::tree($rows, $numbers, 0, count($numbers), 0, (int) floor(log(count($numbers) + 1, 2)));
            foreach ($entries as $index => $entry) {
                if ($entry->bytes === null) {
                    $place($entry, $numbers[$index]);
                }
            }
        };
        $place($root, $number($root));
        foreach ($rows as $at => $row) {
            $bytes = $row['entry']->bytes;
            [$rows[$at]['start'], $rows[$at]['size']] = [$bytes === '' ? self::END : 0, strlen((string) $bytes)];
            if ($bytes === null || $bytes === '') {
                continue;
            }
            if (strlen($bytes) < self::CUTOFF) {
                $rows[$at]['start'] = self::chain($mini, $miniNext, $bytes, self::MINI);
            } else {
                $rows[$at]['start'] = self::chain($sectors, $next, $bytes, self::SECTOR);
            }
        }
        $rows[0]['start'] = $mini === '' ? self::END : self::chain($sectors, $next, $mini, self::SECTOR);
        $rows[0]['size'] = strlen($mini);
        $miniFat = $miniNext === [] ? '' : pack('V*', ...$miniNext);
        $firstMiniFat = $miniFat === '' ? self::END : self::chain($sectors, $next, $miniFat, self::SECTOR, "\xFF");
        $directory = implode('', array_map(self::row(...), $rows));
        $firstDirectory = self::chain($sectors, $next, $directory, self::SECTOR);

        return self::framed($sectors, $next, $firstDirectory, $firstMiniFat, intdiv(strlen($miniFat) + self::SECTOR - 1, self::SECTOR));
    }

    /**
     * The header, the sectors and the tables that say which follows which.
     *
     * @param  list<int>  $next
     */
    private static function framed(string $sectors, array $next, int $firstDirectory, int $firstMiniFat, int $miniFats): string
    {
        $perFat = intdiv(self::SECTOR, 4);
        $used = count($next);
        // The tables lie in sectors that they list themselves.
        for ($fats = 1, $difats = 0; ; ) {
            $needed = intdiv($used + $fats + $difats + $perFat - 1, $perFat);
            $further = max(0, intdiv($needed - self::IN_HEADER + $perFat - 2, $perFat - 1));
            if ($needed === $fats && $further === $difats) {
                break;
            }
            [$fats, $difats] = [$needed, $further];
        }
        $fatAt = range($used, $used + $fats - 1);
        $next = [...$next, ...array_fill(0, $fats, self::FAT), ...array_fill(0, $difats, self::DIFAT)];
        $next = array_pad($next, $fats * $perFat, self::FREE);
        $list = array_slice($fatAt, self::IN_HEADER);
        $difat = '';
        for ($index = 0; $index < $difats; $index++) {
            $some = array_pad(array_slice($list, $index * ($perFat - 1), $perFat - 1), $perFat - 1, self::FREE);
            $difat .= pack('V*', ...$some, ...[$index + 1 < $difats ? $used + $fats + $index + 1 : self::END]);
        }
        $header =
            self::SIGNATURE .
            str_repeat("\0", 16) .
            pack('v5', 0x3e, 3, 0xfffe, 9, 6) .
            str_repeat("\0", 6) .
            pack(
                'V9',
                0,
                $fats,
                $firstDirectory,
                0,
                self::CUTOFF,
                $firstMiniFat,
                $miniFats,
                $difats === 0 ? self::END : $used + $fats,
                $difats,
            ) .
            pack('V*', ...array_pad(array_slice($fatAt, 0, self::IN_HEADER), self::IN_HEADER, self::FREE));

        return $header . $sectors . pack('V*', ...$next) . $difat;
    }

    /**
     * Puts bytes into whole sectors at the end, one following the other.
     *
     * @param  list<int>  $next
     */
    private static function chain(string &$sectors, array &$next, string $bytes, int $size, string $fill = "\0"): int
    {
        $first = count($next);
        $count = intdiv(strlen($bytes) + $size - 1, $size);
        $sectors .= str_pad($bytes, $count * $size, $fill);
        for ($index = 1; $index < $count; $index++) {
            $next[] = $first + $index;
        }
        $next[] = self::END;

        return $first;
    }

    /**
     * @param  array<int, array<string, mixed>>  $rows
     * @param  list<int>  $numbers  in order
     * @return int the number at its top
     */
    private static function tree(array &$rows, array $numbers, int $from, int $to, int $depth, int $full): int
    {
        if ($from >= $to) {
            return self::FREE;
        }
        $middle = intdiv($from + $to, 2);
        $at = $numbers[$middle];
        $rows[$at]['left'] = self::tree($rows, $numbers, $from, $middle, $depth + 1, $full);
        $rows[$at]['right'] = self::tree($rows, $numbers, $middle + 1, $to, $depth + 1, $full);
        // Only the level that is not full is red, so that every way down has as many black ones.
        $rows[$at]['red'] = $depth >= $full;

        return $at;
    }

    /** Shorter names stand before longer ones, those of one length by their capitals. */
    private static function order(CompoundEntry $x, CompoundEntry $y): int
    {
        return [strlen(self::wide($x->name)), strtoupper($x->name)] <=> [strlen(self::wide($y->name)), strtoupper($y->name)];
    }

    private static function wide(string $name): string
    {
        return mb_convert_encoding($name, 'UTF-16LE', 'UTF-8');
    }

    /** @param  array{entry: CompoundEntry, left: int, right: int, child: int, red: bool, start: int, size: int}  $row */
    private static function row(array $row): string
    {
        $entry = $row['entry'];
        $isRoot = $entry->name === 'Root Entry';
        $name = self::wide(mb_substr($entry->name, 0, self::LONGEST_NAME));

        return str_pad($name, 64, "\0") .
            pack('v', strlen($name) + 2) .
            chr($isRoot ? 5 : ($entry->bytes === null ? 1 : 2)) .
            chr($row['red'] ? 0 : 1) .
            pack('V3', $row['left'], $row['right'], $row['child']) .
            str_pad($entry->class, 16, "\0") .
            str_repeat("\0", 20) .
            pack('V', $row['start']) .
            pack('P', $row['size']);
    }

    /** @throws InvalidSequence if it is no such file, or its tables lead nowhere */
    public static function read(string $bytes): CompoundEntry
    {
        if (strlen($bytes) > self::LARGEST || strlen($bytes) < self::SECTOR || !str_starts_with($bytes, self::SIGNATURE)) {
            throw self::broken('is none');
        }
        $head = unpack('vmajor/vorder/vshift/vmini', substr($bytes, 26, 8)) ?: [];
        $size = match ([$head['major'], $head['shift']]) {
            [3, 9] => 512,
            [4, 12] => 4096,
            default => throw self::broken('is of a version that is not known'),
        };
        if ($head['order'] !== 0xfffe || $head['mini'] !== 6) {
            throw self::broken('is of a version that is not known');
        }
        $at = unpack('Vdirs/Vfats/Vdir/Vx/Vcutoff/Vminifat/Vminifats/Vdifat/Vdifats', substr($bytes, 40, 36)) ?: [];
        $reader = new CompoundReader($bytes, $size, $at['cutoff']);
        $reader->tables(array_values(unpack('V' . self::IN_HEADER, substr($bytes, 76)) ?: []), $at['difat'], $at['minifat']);

        return $reader->root($at['dir'], $size === 512);
    }

    public static function broken(string $why): InvalidSequence
    {
        return InvalidSequence::field('The compound file', $why);
    }
}
