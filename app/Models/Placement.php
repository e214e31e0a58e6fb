<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Where a clip lies on the day's clock (ticks since midnight on the anchor recorder's clock), or why it is a stray.
 *
 * @property int $id
 * @property int $clip_id
 * @property int $shoot_day_id
 * @property int|null $group
 * @property int|null $start_ticks
 * @property string|null $way
 * @property float|null $confidence
 * @property bool $is_sure
 * @property float|null $drift_ppm
 * @property bool $drift_applied
 * @property array<mixed>|null $evidence
 * @property string|null $stray_reason
 * @property \Carbon\CarbonInterface|null $locked_at
 * @property \Carbon\CarbonInterface|null $left_out_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Clip $clip
 */
class Placement extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'evidence' => 'array',
            'is_sure' => 'boolean',
            'confidence' => 'float',
            'drift_ppm' => 'float',
            'drift_applied' => 'boolean',
            'locked_at' => 'datetime',
            'left_out_at' => 'datetime',
        ];
    }

    /** Whether a person has put it there or locked it: later runs leave it where it is. */
    public function isHeld(): bool
    {
        return $this->locked_at !== null || ($this->way === 'hand' && $this->start_ticks !== null);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }
}
