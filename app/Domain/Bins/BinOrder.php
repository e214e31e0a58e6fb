<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Models\Production;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Log\ShotSize;

/** The orders in which a bin can be read, as SQL for each kind of thing; by a field of takes as well. */
final readonly class BinOrder
{
    /** The orders beside those of fields. */
    private const KNOWN = ['slate', 'name', 'made', 'timecode', 'size', 'length', 'device', 'day', 'what'];

    private function __construct(private string $by) {}

    /** @return self|null null for what cannot be ordered by */
    public static function of(Production $production, string $by): ?self
    {
        $field = $production->fields()->get($by);
        $isKnown = in_array($by, self::KNOWN, true) || ($field !== null && $field->type !== FieldType::Devices);

        return $isKnown ? new self($by) : null;
    }

    /** What a thing of a kind is ordered by. */
    public function sql(EntryKind $of): string
    {
        return match ($this->by) {
            'slate' => self::slate($of),
            'name' => self::name($of),
            'made' => self::clip($of, '@.recorded_at'),
            'timecode' => $of === EntryKind::Subclip
                ? 'clips.start_ticks + COALESCE(subclips.in_ticks, 0)'
                : self::clip($of, '@.start_ticks'),
            'length' => self::length($of),
            'device' => self::lane($of),
            'day' => match ($of) {
                EntryKind::Take => 'takes.shoot_day_id',
                default => self::clip($of, '@.shoot_day_id'),
            },
            'size' => self::width(self::take($of, '@.size')),
            'what' => (string) array_search($of, EntryKind::cases(), true),
            default => self::take(
                $of,
                str_starts_with($this->by, 'own:') ? sprintf("JSON_VALUE(@.own, '$.\"%s\"')", substr($this->by, 4)) : "@.`$this->by`",
            ),
        };
    }

    public static function slate(EntryKind $of): string
    {
        return self::take($of, '@.sort_key');
    }

    public static function lane(EntryKind $of): string
    {
        return match ($of) {
            EntryKind::Clip, EntryKind::Subclip => '(SELECT lane FROM devices WHERE devices.id = clips.device_id)',
            default => 'NULL',
        };
    }

    public static function name(EntryKind $of): string
    {
        return match ($of) {
            EntryKind::Clip => 'COALESCE(clips.label, clips.name)',
            EntryKind::Take => 'takes.sort_key',
            default => "{$of->table()}.name",
        };
    }

    /** Ticks. */
    public static function length(EntryKind $of): string
    {
        return match ($of) {
            EntryKind::Clip => 'clips.duration_ticks',
            EntryKind::Subclip => 'COALESCE(subclips.out_ticks, clips.duration_ticks) - COALESCE(subclips.in_ticks, 0)',
            EntryKind::Take => '(SELECT MAX(COALESCE(p.out_ticks, c.duration_ticks) - COALESCE(p.in_ticks, 0)) ' .
                'FROM take_parts AS p JOIN clips AS c ON c.id = p.clip_id WHERE p.take_id = takes.id)',
            EntryKind::Sequence => 'sequences.running_ticks',
        };
    }

    private static function take(EntryKind $of, string $column): string
    {
        return match ($of) {
            EntryKind::Take => str_replace('@', 'takes', $column),
            EntryKind::Sequence => 'NULL',
            default => sprintf(
                '(SELECT MIN(%s) FROM take_parts AS p JOIN takes AS t ON t.id = p.take_id WHERE p.clip_id = clips.id)',
                str_replace('@', 't', $column),
            ),
        };
    }

    private static function clip(EntryKind $of, string $column): string
    {
        return match ($of) {
            EntryKind::Take => sprintf(
                '(SELECT MIN(%s) FROM take_parts AS p JOIN clips AS c ON c.id = p.clip_id WHERE p.take_id = takes.id)',
                str_replace('@', 'c', $column),
            ),
            EntryKind::Sequence => 'NULL',
            default => str_replace('@', 'clips', $column),
        };
    }

    /** Sizes from the widest to the closest; those that are not known come last. */
    private static function width(string $size): string
    {
        if ($size === 'NULL') {
            return $size;
        }
        $names = implode(', ', array_map(static fn(string $name): string => "'$name'", ShotSize::names()));

        return "NULLIF(FIELD($size, $names), 0)";
    }
}
