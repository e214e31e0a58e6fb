<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A named range of a clip; a reference, never a copy. Ticks from the clip's first frame, out exclusive.
 *
 * @property int $id
 * @property string $ulid
 * @property int $clip_id
 * @property int|null $user_id
 * @property string $name
 * @property int $in_ticks
 * @property int $out_ticks
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Clip $clip
 */
class Subclip extends Model
{
    use HasUlid;

    protected $guarded = [];

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }
}
