<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\ClipMedia;
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
                    self::isOld($clip, $windows->partner($clip, 'sound')),
            )
            ->values();
        foreach ($pictures as $done => $clip) {
            $progress($done, $pictures->count(), $clip->name);
            try {
                $this->under($clip, $windows->partner($clip, 'sound'));
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
        $this->under($clip, (new Windows($clips))->partner($clip, 'sound'));
    }

    /** Whether one of the two was moved since the sound was laid, or it never was. */
    private static function isOld(Clip $clip, ?Clip $sound): bool
    {
        if ($sound === null || $clip->sound_synced_at === null) {
            return $sound !== null || $clip->sound_synced_at !== null;
        }

        return max($clip->placement->updated_at, $sound->placement->updated_at) >= $clip->sound_synced_at ||
            !is_file(ClipMedia::folder($clip) . '/synced.mp4');
    }

    private function under(Clip $clip, ?Clip $sound): void
    {
        if ($sound === null) {
            $clip->update(['sound_synced_at' => null]);

            return;
        }
        try {
            $this->media->lay(
                $clip,
                $sound,
                ClipMedia::soundFile($sound, $this->stores),
                $clip->placement->start_ticks - $sound->placement->start_ticks,
                Drift::between($clip, $sound),
            );
        } catch (CartellaException | Problem $trouble) {
            Log::warning($trouble->getMessage(), ['clip' => $clip->ulid]);
            $clip->update(['sound_synced_at' => null]);
        }
    }
}
