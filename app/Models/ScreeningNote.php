<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What somebody said while watching a take: at a frame, or from `at_ticks` to `out_ticks` (exclusive), both from the clip's first
 * frame; and the reel in which they watched it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $take_id
 * @property int|null $clip_id
 * @property int|null $user_id
 * @property int $at_ticks
 * @property string $text
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int|null $out_ticks
 * @property int|null $sequence_id
 * @property-read Take $take
 * @property-read User|null $user
 * @property-read Clip|null $clip
 */
class ScreeningNote extends Model
{
    use HasUlid;

    protected $guarded = [];

    /** @return BelongsTo<Take, $this> */
    public function take(): BelongsTo
    {
        return $this->belongsTo(Take::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }
}
