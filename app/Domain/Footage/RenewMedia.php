<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Tasks\NoRoom;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskLost;
use App\Models\Clip;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\CartellaException;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldBeUnique;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Log;

/**
 * Makes media anew that an older recipe made, newest day first. Sent every minute while there is any and works for about as long, so
 * that what people ask for is not kept waiting; killed, it goes on with the next one.
 */
final class RenewMedia implements ShouldBeUnique, ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    /** After so many seconds no further clip is begun. */
    private const SECONDS = 45;

    /** A clip whose worker died so often has failed. */
    private const TRIES = 3;

    /** A clip whose copies could not be reached is left alone for so long. */
    private const AGAIN_SECONDS = 3600;

    public int $tries = 1;

    public int $timeout = 0;

    /** A killed worker's mark ends by itself. */
    public int $uniqueFor = 600;

    public static function isNeeded(): bool
    {
        return self::old()->exists();
    }

    public function handle(ClipMedia $media, Stores $stores): void
    {
        try {
            $this->work($media, $stores);
        } catch (NoRoom $full) {
            Log::info($full->getMessage());
        }
    }

    /** @throws NoRoom */
    private function work(ClipMedia $media, Stores $stores): void
    {
        $until = microtime(true) + self::SECONDS;
        foreach (self::old()->with('card.copies')->limit(500)->get() as $clip) {
            if (microtime(true) > $until) {
                return;
            }
            self::needRoom($clip);
            if (!Cache::add("renew.$clip->id", true, self::AGAIN_SECONDS)) {
                continue;
            }
            // Counted before it is tried: a file that kills its worker leaves nothing else behind.
            if (Cache::increment("renew.tries.$clip->id") > self::TRIES) {
                $this->giveUp($clip, "The media of $clip->name could not be made anew in " . self::TRIES . ' tries.');
            } else {
                $this->renew($clip, $media, $stores);
            }
        }
    }

    private function renew(Clip $clip, ClipMedia $media, Stores $stores): void
    {
        try {
            $media->make($clip, $stores->filesOf($clip));
            MediaMade::dispatch($clip);
        } catch (TaskLost | Problem) {
            // Another worker makes them, or no copy can be reached now: that is no try.
            Cache::decrement("renew.tries.$clip->id");

            return;
        } catch (CartellaException $trouble) {
            Log::warning($trouble->getMessage(), ['clip' => $clip->ulid] + $trouble->context());
            // A disk that filled up meanwhile is no fault of the file.
            self::needRoom($clip);
            $this->giveUp($clip, $trouble->getMessage());
        }
        Live::tell($clip->production_id, Topic::Clips, ['clip' => $clip->ulid]);
    }

    private function giveUp(Clip $clip, string $why): void
    {
        $clip->update(['media_recipe' => MediaFile::RECIPE, 'proxied_at' => null, 'problems' => [...$clip->problems ?? [], $why]]);
    }

    /** @throws NoRoom */
    private static function needRoom(Clip $clip): void
    {
        app(Room::class)->need([
            Folders::media() => MediaRecipe::bytes((int) $clip->duration_ticks, $clip->isPicture(), array_sum(MediaRecipe::streams($clip))),
        ]);
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Clip> */
    private static function old(): \Illuminate\Database\Eloquent\Builder
    {
        return Clip::query()
            ->where('clips.media_recipe', '<', MediaFile::RECIPE)
            ->whereNotNull('clips.proxied_at')
            ->join('shoot_days', 'shoot_days.id', '=', 'clips.shoot_day_id')
            ->orderByDesc('shoot_days.date')
            ->orderBy('clips.id')
            ->select('clips.*');
    }
}
