<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A table of script notes or a report that somebody brought: where it lies, how its columns are read, what came of it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int|null $user_id
 * @property string $name
 * @property string $path
 * @property array<mixed> $layout
 * @property array<mixed>|null $report
 * @property int|null $change_id
 * @property \Carbon\CarbonInterface|null $applied_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 * @property-read ShootDay $day
 */
class ScriptNoteFile extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['layout' => 'array', 'report' => 'array', 'applied_at' => 'datetime'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<ShootDay, $this> */
    public function day(): BelongsTo
    {
        return $this->belongsTo(ShootDay::class, 'shoot_day_id');
    }
}
