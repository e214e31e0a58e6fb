<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Domain\Screening\Rooms;
use App\Models\ScreeningRoom;

/** Where a room is that others follow; `epoch_ms` and `now_ms` are of the server's clock. */
final readonly class RoomAnswer
{
    /** @param  bool  $open  whether anybody lets others follow; where not, the rest says nothing */
    public function __construct(
        public bool $open,
        public int $number,
        public int $at_ticks,
        public float $speed,
        public int $epoch_ms,
        public int $now_ms,
        public string $shows,
    ) {}

    public static function of(?ScreeningRoom $room): self
    {
        return $room === null
            ? new self(false, 0, 0, 0.0, 0, Rooms::now(), '')
            : new self(true, $room->number, $room->at_ticks, (float) $room->speed, $room->epoch_ms, Rooms::now(), $room->shows);
    }
}
