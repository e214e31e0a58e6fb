<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** A review reel: takes of a day in slate order, each from its slate on. */
class Reel extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['circled_only' => 'boolean'];
    }

    /** @return HasMany<ReelItem, $this> */
    public function items(): HasMany
    {
        return $this->hasMany(ReelItem::class)->orderBy('position');
    }

    /** @return BelongsTo<ShootDay, $this> */
    public function day(): BelongsTo
    {
        return $this->belongsTo(ShootDay::class, 'shoot_day_id');
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }
}
