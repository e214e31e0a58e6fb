<?php

declare(strict_types=1);

namespace App\Domain\Undo;

use App\Models\Change;

/**
 * How the steps of something are taken back whose steps are rows themselves: not by removing the row, but by a further one
 * that leads back over what others did since.
 */
interface Replay
{
    /**
     * @param  array<string, mixed>  $row  the step's row as it was written
     * @param  bool  $back  taken back; false does it again
     * @return string|null why it has to stay, a clause without a full stop; null when it is done
     */
    public function turn(Change $change, int $id, array $row, bool $back): ?string;
}
