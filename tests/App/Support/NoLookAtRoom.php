<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Domain\Tasks\Room;

/** Somebody else fills the disk between the look at its room and the copying. */
final class NoLookAtRoom extends Room
{
    public function need(array $bytes): void {}
}
