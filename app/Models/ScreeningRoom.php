<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Where a room that others follow is: at `at_ticks` of its reel at the server's moment `epoch_ms` (milliseconds since 1970), moving at
 * `speed` times normal. `number` counts what was told; `shows` is the page's own word for which angle is seen.
 *
 * @property int $id
 * @property int $sequence_id
 * @property int $user_id
 * @property int $number
 * @property int $at_ticks
 * @property string $speed
 * @property int $epoch_ms
 * @property string $shows
 * @property \Carbon\CarbonInterface|null $heard_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read User $user
 */
class ScreeningRoom extends Model
{
    protected $guarded = [];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected function casts(): array
    {
        return ['heard_at' => 'datetime'];
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
