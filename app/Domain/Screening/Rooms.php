<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Models\ScreeningRoom;
use App\Models\StoredSequence;
use App\Models\User;

/**
 * Rooms that others follow from afar: the desk says where its reel is and how it moves, the server keeps it with the moment by its own
 * clock, and whoever joins moves alike from there. Nobody follows a room that was not heard of for a while.
 */
final class Rooms
{
    /** A desk says that it is there more often than that, seconds. */
    private const SILENT_AFTER = 40;

    /** A moment that a desk names may lie so far beside the server's own, milliseconds; else the server's counts. */
    private const BESIDE_MS = 2000;

    /** The server's clock, milliseconds since 1970. */
    public static function now(): int
    {
        return (int) floor(1000 * microtime(true));
    }

    /**
     * @param  float  $speed  times normal; 0 when it stands
     * @param  int  $epochMs  the server's moment at which it was there, as the desk reckons it
     * @param  string  $shows  which angle and whether the screen is blank, as pages write it
     */
    public function tell(StoredSequence $reel, User $user, int $atTicks, float $speed, int $epochMs, string $shows): ScreeningRoom
    {
        $now = self::now();
        $room = ScreeningRoom::query()->firstOrNew(['sequence_id' => $reel->id]);
        $room
            ->fill([
                'user_id' => $user->id,
                'number' => $room->number + 1,
                'at_ticks' => $atTicks,
                'speed' => $speed,
                'epoch_ms' => abs($epochMs - $now) > self::BESIDE_MS ? $now : $epochMs,
                'shows' => $shows,
                'heard_at' => now(),
            ])
            ->save();

        return $room;
    }

    public function close(StoredSequence $reel): void
    {
        ScreeningRoom::query()->where('sequence_id', $reel->id)->delete();
    }

    /** @return ScreeningRoom|null null where nobody lets others follow */
    public function of(int $reel): ?ScreeningRoom
    {
        return ScreeningRoom::query()
            ->where('sequence_id', $reel)
            ->whereBetween('heard_at', [now()->subSeconds(self::SILENT_AFTER), now()->addSeconds(self::SILENT_AFTER)])
            ->first();
    }
}
