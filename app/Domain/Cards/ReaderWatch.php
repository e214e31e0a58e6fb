<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Production;
use App\Models\Volume;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Topic;
use Cartella\Core\CartellaException;
use Cartella\Core\Custody\Survey;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Log;

/**
 * Keeps the table of volumes true to what is in the readers: looks for volumes that came or went every time, and into
 * each volume when its folders changed, or after a while. Pages read the table and never wait for a card.
 */
final class ReaderWatch
{
    /** A file that grows leaves its folder as it is, so every volume is walked again after this. */
    private const AGAIN_SECONDS = 15;

    /** A watch that has not passed by for this long is not running. */
    private const ALIVE_SECONDS = 10;

    public static function isAlive(): bool
    {
        return Cache::get('bench.watch', 0) > now()->getTimestamp() - self::ALIVE_SECONDS;
    }

    public function beat(): void
    {
        Cache::put('bench.watch', now()->getTimestamp(), self::ALIVE_SECONDS);
    }

    /**
     * One pass over the readers.
     *
     * @param  (callable(): void)|null  $onVolume  after each volume that was looked into
     * @return bool whether anything changed
     */
    public function pass(bool $again = false, ?callable $onVolume = null): bool
    {
        $known = Volume::query()
            ->get(['id', 'name', 'state', 'looked_at'])
            ->keyBy('name');
        $there = self::namesIn(Folders::readers());
        $gone = $known->keys()->map(strval(...))->diff($there);
        Volume::query()->whereIn('name', $gone->all())->delete();
        $changed = $gone->isNotEmpty();
        foreach ($there as $name) {
            $volume = $known->get($name);
            // One that was looked at in the future was so before the clock was set back.
            $isOld = $volume === null || abs(now()->diffInSeconds($volume->looked_at)) > self::AGAIN_SECONDS;
            if ($again || $isOld) {
                $changed = $this->look($name) || $changed;
                if ($onVolume !== null) {
                    $onVolume();
                }
            }
        }
        $changed = ClaimVolume::byThemselves() || $changed;
        if ($changed) {
            foreach (Production::query()->pluck('id') as $production) {
                Live::tell((int) $production, Topic::Cards);
            }
        }

        return $changed;
    }

    /** @return list<string> names of volumes, in natural order */
    public static function namesIn(string $bench): array
    {
        $names = [];
        foreach (@scandir($bench) ?: [] as $name) {
            if ($name[0] !== '.' && !is_link($bench . '/' . $name) && is_dir($bench . '/' . $name) && mb_check_encoding($name, 'UTF-8')) {
                $names[] = $name;
            }
        }
        natcasesort($names);

        return array_values($names);
    }

    /** Looks into one volume; true when it is not what it was. */
    public function look(string $name): bool
    {
        $volume = Volume::query()
            ->where('name', $name)
            ->first(['id', 'name', 'state']);
        $folder = Folders::readers($name);
        // Clips are only opened again when something is another: a card that is being copied has enough to do.
        if ($volume !== null && $volume->state === Survey::stateOf($folder)) {
            $volume->update(['looked_at' => now()]);

            return false;
        }
        $sizes = [];
        try {
            $survey = Survey::of(
                $folder,
                static function (string $path, int $bytes) use (&$sizes): void {
                    $sizes[$path] = $bytes;
                },
                new \DateTimeZone((string) config('app.timezone')),
            );
        } catch (CartellaException $trouble) {
            Log::warning($trouble->getMessage(), ['volume' => $name] + $trouble->context());

            return false;
        }
        Volume::query()->updateOrCreate(
            ['name' => $name],
            [
                'fingerprint' => $survey->fingerprint,
                'state' => $survey->state,
                'survey' => get_object_vars($survey),
                'list' => Volume::pack($sizes),
                'looked_at' => now(),
            ],
        );

        return true;
    }
}
