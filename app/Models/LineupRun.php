<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * One run of line-up over a day or a part of it, with the places of the whole day as it left them, by the clip's id.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int|null $user_id
 * @property int $number
 * @property string $scope
 * @property string $ways
 * @property int $placed
 * @property int $sure
 * @property int $strays
 * @property array<mixed>|null $places
 * @property \Carbon\CarbonInterface|null $ended_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read ShootDay $day
 * @property-read User|null $user
 */
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
