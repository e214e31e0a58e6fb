<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One run of line-up over a day or a part of it, with the places of the whole day as it left them, by the clip's id. */
class LineupRun extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['places' => 'array', 'ended_at' => 'datetime'];
    }

    /** @return BelongsTo<ShootDay, $this> */
    public function day(): BelongsTo
    {
        return $this->belongsTo(ShootDay::class, 'shoot_day_id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
