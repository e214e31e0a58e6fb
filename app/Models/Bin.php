<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A folder that somebody made; the bins of the scenes are not rows but follow the slates.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int|null $parent_id
 * @property int|null $user_id
 * @property string $name
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property array<mixed>|null $rule
 * @property string|null $colour
 * @property int $place
 * @property-read \Illuminate\Database\Eloquent\Collection<int, BinItem> $items
 * @property-read int|null $items_count
 */
class Bin extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['rule' => 'array'];
    }

    /** @return HasMany<BinItem, $this> */
    public function items(): HasMany
    {
        return $this->hasMany(BinItem::class);
    }
}
