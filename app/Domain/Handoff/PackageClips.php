<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinRows;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\Production;
use App\Models\StoredSequence;
use App\Models\TakePart;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The clips that a choice means: those of its days and bins, of its takes, and all that its cuts show and let hear. */
final class PackageClips
{
    private const WITH = ['card.copies', 'device.look', 'look', 'take', 'parts.take', 'placement', 'day', 'production'];

    public function __construct(private readonly BinRows $bins, private readonly SequenceStore $store) {}

    /** @return Collection<int, Clip> in the order of their ids */
    public function of(Production $production, PackageChoice $choice): Collection
    {
        $days = $production
            ->days()
            ->when(!$choice->isSince, static fn($query) => $query->whereIn('ulid', $choice->days))
            ->pluck('id')
            ->all();
        $ids = [];
        foreach ($choice->bins as $key) {
            array_push($ids, ...$this->bins->clipIds($production, $key));
        }
        foreach ($this->sequences($production, $choice) as $stored) {
            $playlist = Playlist::of($stored, $this->store->read($stored));
            foreach ([...$playlist->pictures, ...$playlist->sounds] as $piece) {
                $ids[] = $piece->clip->id;
            }
        }
        if ($choice->takes !== []) {
            $takes = DB::table('takes')->where('production_id', $production->id)->whereIn('ulid', $choice->takes)->pluck('id');
            array_push($ids, ...TakePart::query()->whereIn('take_id', $takes)->pluck('clip_id')->all());
        }

        return Clip::query()
            ->whereNull('clips.away_at')
            ->with(self::WITH)
            ->where('production_id', $production->id)
            ->whereIn('kind', ['picture', 'sound', 'still'])
            ->where(
                static fn($query) => $query
                    ->where(
                        static fn($own) => $own
                            ->whereIn('shoot_day_id', $days)
                            ->when(!$choice->isSince, static fn($shot) => $shot->whereNull('import_kind')),
                    )
                    ->orWhereIntegerInRaw('id', array_unique($ids)),
            )
            ->orderBy('id')
            ->get();
    }

    /** @return Collection<int, StoredSequence> the cuts that were chosen by name */
    public function sequences(Production $production, PackageChoice $choice): Collection
    {
        return $choice->sequences === []
            ? new Collection()
            : StoredSequence::query()
                ->where('production_id', $production->id)
                ->whereNull('removed_at')
                ->whereIn('ulid', $choice->sequences)
                ->orderBy('id')
                ->get();
    }
}
