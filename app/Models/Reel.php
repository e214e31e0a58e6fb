<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A review reel: takes of a day in slate order, each from its slate on.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int|null $user_id
 * @property string $name
 * @property bool $circled_only
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ReelItem> $items
 * @property-read ShootDay $day
 * @property-read Production $production
 * @property-read int|null $items_count
 */
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

    public function runningTicks(): int
    {
        return (int) $this->items()->reorder()->selectRaw('SUM(out_ticks - in_ticks) AS ticks')->value('ticks');
    }
}
