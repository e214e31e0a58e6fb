<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\Stores;
use App\Domain\Tasks\TaskLost;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Support\Problem;
use Cartella\Core\CartellaException;
use Illuminate\Support\Facades\Log;

/**
 * Lays the recorder's sound under every picture that ran with it, for watching; the recordings stay as they are. What
 * lies as it did is not laid again.
 */
final class LaySound
{
    public function __construct(private readonly ClipMedia $media, private readonly Stores $stores) {}

    /** @param  callable(int $done, int $total, string $name): void  $progress */
    public function day(ShootDay $day, callable $progress): void
    {
        $clips = Clip::query()
            ->with(['placement', 'take', 'card.copies'])
            ->where('shoot_day_id', $day->id)
            ->whereIn('kind', ['picture', 'sound'])
            ->whereNull('import_kind')
            ->get();
        $windows = new Windows($clips);
        $pictures = $clips
            ->filter(
                static fn(Clip $clip): bool => $clip->isPicture() &&
                    $clip->proxied_at !== null &&
                    self::isOld($clip, SoundsUnder::of($clip, $windows)),
            )
            ->values();
        foreach ($pictures as $done => $clip) {
            $progress($done, $pictures->count(), $clip->title());
            try {
                $this->under($clip, SoundsUnder::of($clip, $windows));
            } catch (TaskLost) {
                LaySoundJob::dispatch($clip->id)->onQueue('media'); // another worker makes media of it just now
            }
        }
    }

    /** One picture again, after it was moved. */
    public function one(Clip $clip): void
    {
        $clips = Clip::query()
            ->with(['placement', 'card.copies'])
            ->where('shoot_day_id', $clip->shoot_day_id)
            ->where('kind', 'sound')
            ->whereNull('import_kind')
            ->get();
        $clip->load('placement');
        $this->under($clip, SoundsUnder::of($clip, new Windows($clips)));
    }

    /**
     * Whether one of them was moved since the sound was laid, or it never was.
     *
     * @param  list<array{sound: Clip, from: int, to: int}>  $pieces
     */
    private static function isOld(Clip $clip, array $pieces): bool
    {
        if ($pieces === [] || $clip->sound_synced_at === null) {
            return $pieces !== [] || $clip->sound_synced_at !== null;
        }
        $moved = max(
            $clip->placement->updated_at,
            ...array_map(static fn(array $piece) => $piece['sound']->placement->updated_at, $pieces),
        );

        return $moved >= $clip->sound_synced_at || !MediaFolder::of($clip)->has(MediaFile::Synced);
    }

    /** @param  list<array{sound: Clip, from: int, to: int}>  $pieces */
    private function under(Clip $clip, array $pieces): void
    {
        if ($pieces === []) {
            $clip->update(['sound_synced_at' => null]);

            return;
        }
        try {
            $this->media->lay(
                $clip,
                array_map(
                    fn(array $piece): array => $piece + [
                        'file' => ClipMedia::soundFile($piece['sound'], $this->stores),
                        'offset' => $clip->placement->start_ticks - $piece['sound']->placement->start_ticks,
                        'drift' => Drift::between($clip, $piece['sound']),
                    ],
                    $pieces,
                ),
            );
        } catch (CartellaException | Problem $trouble) {
            Log::warning($trouble->getMessage(), ['clip' => $clip->ulid]);
            $clip->update(['sound_synced_at' => null]);
        }
    }
}
