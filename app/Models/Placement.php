<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** Where a clip lies on the day's clock (ticks since midnight on the anchor recorder's clock), or why it is a stray. */
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
