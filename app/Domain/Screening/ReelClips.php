<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\SoundPiece;
use App\Models\Clip;
use App\Models\StoredSequence;
use Illuminate\Support\Facades\Cache;

/** The clips that somebody may see and hear who may watch one reel: its pictures, their other angles, and the sound under them. */
final readonly class ReelClips
{
    /** Players ask for many pieces of each file; what a reel consists of is looked up this often, seconds. */
    private const KEPT = 120;

    public function __construct(private SequenceStore $store, private ReelShow $show) {}

    /** @return Clip|null null where the clip is not of the reel */
    public function find(StoredSequence $reel, string $clip): ?Clip
    {
        $known = Cache::remember("reel.clips.$reel->id.$reel->step", self::KEPT, fn(): array => $this->all($reel));
        if (!in_array($clip, $known, true)) {
            return null;
        }

        return Clip::query()->where('production_id', $reel->production_id)->where('ulid', $clip)->first();
    }

    /** @return list<string> ULIDs */
    private function all(StoredSequence $reel): array
    {
        $playlist = Playlist::of($reel, $this->store->read($reel));
        $clips = array_map(static fn(PicturePiece|SoundPiece $piece): string => $piece->clip->ulid, [
            ...$playlist->pictures,
            ...$playlist->sounds,
            ...$playlist->own,
        ]);
        foreach ($this->show->of($playlist) as $shown) {
            foreach ($shown['angles'] as $angle) {
                $clips[] = $angle['clip']->ulid;
            }
        }

        return array_values(array_unique($clips));
    }
}
