<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** One day of shooting of one unit; a night shoot belongs to the day that began before it. */
class ShootDay extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['date' => 'immutable_date'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return HasMany<Card, $this> */
    public function cards(): HasMany
    {
        return $this->hasMany(Card::class);
    }

    /** @return HasMany<Clip, $this> */
    public function clips(): HasMany
    {
        return $this->hasMany(Clip::class);
    }

    /** @return HasMany<Take, $this> */
    public function takes(): HasMany
    {
        return $this->hasMany(Take::class);
    }

    /** @return HasMany<Placement, $this> */
    public function placements(): HasMany
    {
        return $this->hasMany(Placement::class);
    }

    /** @return HasMany<ClockOffset, $this> */
    public function clockOffsets(): HasMany
    {
        return $this->hasMany(ClockOffset::class);
    }

    /** @return HasMany<LineupRun, $this> */
    public function lineupRuns(): HasMany
    {
        return $this->hasMany(LineupRun::class);
    }

    /** @return HasMany<Reel, $this> */
    public function reels(): HasMany
    {
        return $this->hasMany(Reel::class);
    }
}
