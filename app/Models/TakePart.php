<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What of a clip belongs to a take: all of it, or the stretch from `in_ticks` to `out_ticks` from its first frame. One
 * recording over ten takes is ten parts.
 *
 * @property int $id
 * @property int $take_id
 * @property int $clip_id
 * @property int|null $in_ticks
 * @property int|null $out_ticks
 * @property string $said_by
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Take $take
 * @property-read Clip $clip
 */
class TakePart extends Model
{
    protected $guarded = [];

    /** @return BelongsTo<Take, $this> */
    public function take(): BelongsTo
    {
        return $this->belongsTo(Take::class);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }
}
