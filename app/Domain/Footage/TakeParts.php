<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Take;
use App\Models\TakePart;

/**
 * Which takes a clip belongs to, and with which stretch of it. Rows that stay right stay, so that two people's steps meet
 * only where they mean the same part.
 */
final class TakeParts
{
    /**
     * @param  Take|null  $take  all of the clip belongs to it; null for none
     * @param  string  $by  who says so: `ixml`, `name`, `lineup`, `script` or `person`
     * @return bool whether anything changed
     */
    public static function whole(Clip $clip, ?Take $take, string $by, ChangeLog $log): bool
    {
        return self::set($clip, $take === null ? [] : [['take' => $take, 'in' => null, 'out' => null]], $by, $log);
    }

    /**
     * @param  list<array{take: Take, in: int|null, out: int|null}>  $parts  ticks from the clip's first frame; null for its own ends
     * @param  string  $by  who says so, as above
     * @return bool whether anything changed
     */
    public static function set(Clip $clip, array $parts, string $by, ChangeLog $log): bool
    {
        // What a person took the slate off, machines leave without one.
        $clip->has_no_slate = $parts === [] && $by === 'person';
        $log->save($clip);
        if ($clip->relationLoaded('parts') && self::isSame($clip->parts->all(), $parts, $by)) {
            return false;
        }
        $rows = TakePart::query()->where('clip_id', $clip->id)->orderBy('in_ticks')->orderBy('id')->lockForUpdate()->get()->all();
        if ($by !== 'person' && !$clip->isSaidByPerson() && in_array('person', array_column($rows, 'said_by'), true)) {
            return false; // a person has said it meanwhile
        }
        $changed = false;
        // First those that keep their take, so that a part that is only trimmed is no other part.
        usort(
            $parts,
            static fn(array $x, array $y): int => self::has($rows, $y['take']) <=> self::has($rows, $x['take']) ?:
            ($x['in'] ?? 0) <=> ($y['in'] ?? 0),
        );
        foreach ($parts as $part) {
            $at = self::fitting($rows, $part['take']);
            $row = $at === null ? new TakePart(['clip_id' => $clip->id]) : $rows[$at];
            if ($at !== null) {
                unset($rows[$at]);
            }
            $row->fill(['take_id' => $part['take']->id, 'in_ticks' => $part['in'], 'out_ticks' => $part['out'], 'said_by' => $by]);
            $changed = $changed || !$row->exists || $row->isDirty();
            $log->save($row);
        }
        foreach ($rows as $row) {
            $log->delete($row);
            $changed = true;
        }
        $clip->unsetRelation('parts')->unsetRelation('take')->unsetRelation('takes');

        return $changed;
    }

    /** Of a clip over several takes the part of one of them, as people write it; null for any other clip. */
    public static function labelled(Clip $clip, ?string $slate): ?TakePart
    {
        $parts = TakePart::query()->with('take')->where('clip_id', $clip->id)->get();

        return $slate === null || $parts->count() < 2
            ? null
            : $parts->first(static fn(TakePart $part): bool => $part->take->label() === $slate);
    }

    /** One part belongs to another take from now on, or to none; a person said so. */
    public static function give(TakePart $part, ?Take $take, ChangeLog $log): void
    {
        if ($take === null) {
            $log->delete($part);

            return;
        }
        $part->fill(['take_id' => $take->id, 'said_by' => 'person']);
        $log->save($part);
    }

    /** All that belongs to one take belongs to another from now on; a person said so. */
    public static function move(Take $from, Take $to, ChangeLog $log): void
    {
        foreach (TakePart::query()->where('take_id', $from->id)->lockForUpdate()->get() as $part) {
            $part->fill(['take_id' => $to->id, 'said_by' => 'person']);
            $log->save($part);
        }
    }

    /**
     * @param  list<TakePart>  $rows
     * @param  list<array{take: Take, in: int|null, out: int|null}>  $parts
     */
    private static function isSame(array $rows, array $parts, string $by): bool
    {
        // Who said it first stays, unless a person says it now.
        $told = static fn(int $take, ?int $in, ?int $out, string $said): string => "$take $in $out" . ($by === 'person' ? $said : '');
        $is = array_map(static fn(TakePart $row): string => $told($row->take_id, $row->in_ticks, $row->out_ticks, $row->said_by), $rows);
        $shall = array_map(static fn(array $part): string => $told($part['take']->id, $part['in'], $part['out'], $by), $parts);
        sort($is);
        sort($shall);

        return $is === $shall;
    }

    /** @param  array<int, TakePart>  $rows */
    private static function has(array $rows, Take $take): bool
    {
        return in_array($take->id, array_map(static fn(TakePart $row): int => $row->take_id, $rows), true);
    }

    /**
     * @param  array<int, TakePart>  $rows
     * @return int|null the row of that take, else the first that is left
     */
    private static function fitting(array $rows, Take $take): ?int
    {
        foreach ($rows as $at => $row) {
            if ($row->take_id === $take->id) {
                return $at;
            }
        }

        return array_key_first($rows);
    }
}
