<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Production;
use Illuminate\Support\Facades\DB;

/** Takes and clips by a few letters of what is known of them, a dozen of each. */
final class Search
{
    /** @return array{takes: list<object>, clips: list<object>} */
    public function of(Production $production, string $text): array
    {
        $like = '%' . addcslashes($text, '%_\\') . '%';
        $takes = DB::table('takes')
            ->join('shoot_days', 'shoot_days.id', '=', 'takes.shoot_day_id')
            ->where('takes.production_id', $production->id)
            ->where(
                static fn($query) => $query
                    ->where('description', 'like', $like)
                    ->orWhere('notes', 'like', $like)
                    ->orWhere('keywords', 'like', $like)
                    ->orWhere('takes.name', 'like', $like)
                    // Values alone: a letter of a field's name finds nothing.
                    ->orWhereRaw("JSON_SEARCH(takes.own, 'one', ?, NULL, '$.*') IS NOT NULL", [$like])
                    ->orWhereRaw("CONCAT(setup, '/', take, part) LIKE ?", [addcslashes($text, '%_\\') . '%']),
            )
            ->orderBy('sort_key')
            ->limit(12)
            ->get(['takes.ulid', 'setup', 'take', 'part', 'description', 'status', 'shoot_days.ulid as day', 'shoot_days.number']);
        $clips = DB::table('clips')
            ->join('shoot_days', 'shoot_days.id', '=', 'clips.shoot_day_id')
            ->leftJoin('devices', 'devices.id', '=', 'clips.device_id')
            ->where('clips.production_id', $production->id)
            ->where(static fn($query) => $query->where('clips.name', 'like', $like)->orWhere('clips.label', 'like', $like))
            ->orderBy('clips.name')
            ->limit(12)
            ->get([
                'clips.ulid',
                'clips.name',
                'clips.label',
                'clips.kind',
                'devices.letter',
                'shoot_days.ulid as day',
                'shoot_days.number',
            ]);

        return ['takes' => $takes->all(), 'clips' => $clips->all()];
    }
}
