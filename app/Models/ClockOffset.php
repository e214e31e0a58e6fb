<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What to add to a device's recorded times on one day, in ticks: what sound taught, and what a person applied.
 *
 * @property int $id
 * @property int $device_id
 * @property int $shoot_day_id
 * @property int|null $learned_ticks
 * @property int $votes
 * @property int|null $applied_ticks
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Device $device
 */
class ClockOffset extends Model
{
    protected $guarded = [];

    /** @return BelongsTo<Device, $this> */
    public function device(): BelongsTo
    {
        return $this->belongsTo(Device::class);
    }
}
