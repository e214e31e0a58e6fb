<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Aaf;

use Cartella\Core\Exchange\Exception\InvalidSequence;

/**
 * The sectors of a compound file and the chains through them.
 *
 * @internal
 */
final class CompoundReader
{
    private const END = 0xfffffffe;

    private const FREE = 0xffffffff;

    /** Storages in storages. */
    private const DEEPEST = 64;

    private const MOST_ENTRIES = 250_000;

    /** @var list<int> */
    private array $next = [];

    /** @var list<int> */
    private array $miniNext = [];

    private string $mini = '';

    /** @var array<int, true> entries that were met */
    private array $met = [];

    private string $directory = '';

    /** Bytes of all streams: entries that share one chain make no more of a file than it is. */
    private int $total = 0;

    public function __construct(private readonly string $bytes, private readonly int $size, private readonly int $cutoff) {}

    /**
     * @param  list<int>  $fats  the first of the sectors that hold the table
     *
     * @throws InvalidSequence
     */
    public function tables(array $fats, int $difat, int $miniFat): void
    {
        $per = intdiv($this->size, 4);
        for ($seen = []; $difat < self::END - 3; ) {
            if (isset($seen[$difat])) {
                throw CompoundFile::broken('has a table that goes round');
            }
            $seen[$difat] = true;
            $numbers = array_values(unpack('V*', $this->sector($difat)) ?: []);
            $difat = $numbers[$per - 1] ?? self::END;
            array_push($fats, ...array_slice($numbers, 0, $per - 1));
        }
        $table = '';
        $listed = [];
        foreach ($fats as $sector) {
            if ($sector < self::END - 3) {
                if (isset($listed[$sector])) {
                    throw CompoundFile::broken('lists a sector of its table twice');
                }
                $listed[$sector] = true;
                $table .= $this->sector($sector);
            }
        }
        $this->next = $table === '' ? [] : array_values(unpack('V*', $table) ?: []);
        $mini = $miniFat < self::END - 3 ? $this->chain($miniFat) : '';
        $this->miniNext = $mini === '' ? [] : array_values(unpack('V*', $mini) ?: []);
    }

    /** @throws InvalidSequence */
    public function root(int $directory, bool $isOld): CompoundEntry
    {
        $this->directory = $this->chain($directory);
        $row = $this->row(0, $isOld);
        if ($row['type'] !== 5) {
            throw CompoundFile::broken('has no root');
        }
        $this->mini = $row['start'] < self::END - 3 ? substr($this->chain($row['start']), 0, $row['size']) : '';
        $root = new CompoundEntry('Root Entry', $row['class']);
        $this->met[0] = true;
        $this->children($root, $row['child'], $isOld, 0);

        return $root;
    }

    private function children(CompoundEntry $storage, int $top, bool $isOld, int $depth): void
    {
        if ($depth > self::DEEPEST) {
            throw CompoundFile::broken('nests too deep');
        }
        for ($open = [$top]; $open !== []; ) {
            $at = array_pop($open);
            if ($at === self::FREE) {
                continue;
            }
            if (isset($this->met[$at]) || count($this->met) > self::MOST_ENTRIES) {
                throw CompoundFile::broken('has an entry twice');
            }
            $this->met[$at] = true;
            $row = $this->row($at, $isOld);
            array_push($open, $row['left'], $row['right']);
            if ($row['type'] === 2) {
                $storage->put(new CompoundEntry($row['name'], '', $this->stream($row['start'], $row['size'])));
            } elseif ($row['type'] === 1) {
                $this->children($storage->put(new CompoundEntry($row['name'], $row['class'])), $row['child'], $isOld, $depth + 1);
            }
        }
    }

    /** @return array{name: string, type: int, left: int, right: int, child: int, class: string, start: int, size: int} */
    private function row(int $at, bool $isOld): array
    {
        $bytes = substr($this->directory, $at * 128, 128);
        if (strlen($bytes) !== 128) {
            throw CompoundFile::broken('names an entry that is not there');
        }
        $row = unpack('vlength/Ctype/Cred/Vleft/Vright/Vchild', substr($bytes, 64, 16)) ?: [];
        $place = unpack('Vstart/Vsize/Vhigh', substr($bytes, 116, 12)) ?: [];
        $length = max(0, min(64, $row['length']) - 2);

        return [
            'name' => mb_scrub(mb_convert_encoding(substr($bytes, 0, $length - ($length % 2)), 'UTF-8', 'UTF-16LE')),
            'type' => $row['type'],
            'left' => $row['left'],
            'right' => $row['right'],
            'child' => $row['child'],
            'class' => substr($bytes, 80, 16),
            'start' => $place['start'],
            // Old files may have anything in the upper half.
            'size' => $place['size'] + ($isOld ? 0 : $place['high'] << 32),
        ];
    }

    private function stream(int $start, int $size): string
    {
        if ($size === 0) {
            return '';
        }
        $this->total += max(0, $size);
        if ($size < 0 || $this->total > strlen($this->bytes)) {
            throw CompoundFile::broken('has a stream that is longer than the file');
        }
        $bytes = $size < $this->cutoff ? $this->miniChain($start, $size) : $this->chain($start, $size);
        if (strlen($bytes) < $size) {
            throw CompoundFile::broken('ends within a stream');
        }

        return substr($bytes, 0, $size);
    }

    private function chain(int $sector, int $size = PHP_INT_MAX): string
    {
        $bytes = '';
        for ($count = 0; $sector < self::END - 3 && strlen($bytes) < $size; $count++) {
            if ($count > count($this->next)) {
                throw CompoundFile::broken('has a chain that goes round');
            }
            $bytes .= $this->sector($sector);
            $sector = $this->next[$sector] ?? throw CompoundFile::broken('has a chain that leads out of it');
        }

        return $bytes;
    }

    private function miniChain(int $sector, int $size): string
    {
        $bytes = '';
        for ($count = 0; $sector < self::END - 3 && strlen($bytes) < $size; $count++) {
            if ($count > count($this->miniNext)) {
                throw CompoundFile::broken('has a chain that goes round');
            }
            $bytes .= substr($this->mini, $sector * 64, 64);
            $sector = $this->miniNext[$sector] ?? throw CompoundFile::broken('has a chain that leads out of it');
        }

        return $bytes;
    }

    private function sector(int $number): string
    {
        $sector = substr($this->bytes, ($number + 1) * $this->size, $this->size);
        if ($sector === '') {
            throw CompoundFile::broken('names a sector that is not there');
        }

        return str_pad($sector, $this->size, "\0");
    }
}
