<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use App\Models\Production;
use App\Models\StoredSequence;
use App\Models\Subclip;
use App\Models\Take;
use App\Support\Problem;
use Cartella\Core\Footage\InvalidReference;
use Cartella\Core\Footage\Reference;
use Cartella\Core\Footage\ReferenceKind;

/** Finds what references name, in one production and nowhere else. */
final class References
{
    /**
     * @param  list<string>  $texts  as {@see Reference} is written
     * @return list<array{reference: Reference, id: int}> each once, in their order; the id is that of the row it names
     *
     * @throws Problem if one names nothing of this production, or a stretch that its clip does not have
     */
    public static function find(Production $production, array $texts): array
    {
        $byKind = $found = $order = [];
        foreach ($texts as $text) {
            try {
                $reference = Reference::parse($text);
            } catch (InvalidReference) {
                throw self::missing();
            }
            $written = (string) $reference;
            $order[$written] ??= count($order);
            $byKind[$reference->kind->value][$written] = $reference;
        }
        foreach ($byKind as $kind => $references) {
            $rows = self::rows(
                $production,
                ReferenceKind::from($kind),
                array_values(array_map(static fn(Reference $one): string => $one->id, $references)),
            );
            foreach ($references as $text => $reference) {
                $row = $rows[$reference->id] ?? throw self::missing();
                if ($reference->span !== null && $row['ticks'] !== null && !$reference->span->isInside($row['ticks'])) {
                    throw Problem::refused('reference.span', 'That stretch lies outside its clip.', 'Set it again.');
                }
                $found[$text] = ['reference' => $reference, 'id' => $row['id']];
            }
        }
        uksort($found, static fn(string $x, string $y): int => $order[$x] <=> $order[$y]);

        return array_values($found);
    }

    /** The column of a table of references that holds what a kind names. */
    public static function column(ReferenceKind $kind): string
    {
        return $kind->value . '_id';
    }

    /**
     * @param  list<string>  $ulids
     * @return array<string, array{id: int, ticks: int|null}> by ULID; ticks is how long it lasts, where that is known
     */
    private static function rows(Production $production, ReferenceKind $kind, array $ulids): array
    {
        $rows = match ($kind) {
            ReferenceKind::Clip => Clip::query()->where('production_id', $production->id)->selectRaw('id, ulid, duration_ticks AS ticks'),
            ReferenceKind::Take => Take::query()->where('production_id', $production->id)->selectRaw('id, ulid, NULL AS ticks'),
            ReferenceKind::Sequence => StoredSequence::query()
                ->where('production_id', $production->id)
                ->whereNull('removed_at')
                ->selectRaw('id, ulid, running_ticks AS ticks'),
            ReferenceKind::Subclip => Subclip::query()
                ->whereHas('clip', static fn($clip) => $clip->where('production_id', $production->id))
                ->selectRaw('id, ulid, NULL AS ticks'),
        };
        $found = [];
        foreach ($rows->whereIn('ulid', $ulids)->toBase()->get() as $row) {
            $found[$row->ulid] = ['id' => (int) $row->id, 'ticks' => $row->ticks === null ? null : (int) $row->ticks];
        }

        return $found;
    }

    private static function missing(): Problem
    {
        return Problem::missing('One of those', 'Load the page again.');
    }
}
