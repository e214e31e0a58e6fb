<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * One take on a reel: which clip shows it, from where to where (ticks from the clip's first frame, out exclusive).
 *
 * @property int $id
 * @property int $reel_id
 * @property int $position
 * @property int $take_id
 * @property int $clip_id
 * @property int $in_ticks
 * @property int $out_ticks
 * @property-read Take $take
 * @property-read Clip $clip
 */
class ReelItem extends Model
{
    public $timestamps = false;

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
