<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What somebody said while watching a take; `at_ticks` from the clip's first frame.
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
 * @property-read User|null $user
 * @property-read Clip|null $clip
 */
class ScreeningNote extends Model
{
    use HasUlid;

    protected $guarded = [];

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
