<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A sequence as its store keeps it: its content at one step, and the steps since. Nothing else reads or changes it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int|null $shoot_day_id
 * @property int|null $user_id
 * @property \App\Models\SequenceKind $kind
 * @property string $name
 * @property array<mixed>|null $recipe
 * @property string|null $made_of
 * @property string $content
 * @property int $content_step
 * @property int $step
 * @property int $items
 * @property int $running_ticks
 * @property \Carbon\CarbonInterface|null $removed_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property array<mixed>|null $built_takes
 * @property-read Production $production
 * @property-read ShootDay|null $day
 * @property-read \Illuminate\Database\Eloquent\Collection<int, SequenceStep> $steps
 * @property-read \Illuminate\Database\Eloquent\Collection<int, SequenceVersion> $versions
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ScreeningLink> $links
 */
class StoredSequence extends Model
{
    use HasUlid;

    protected $table = 'sequences';

    protected $guarded = [];

    protected function casts(): array
    {
        return ['kind' => SequenceKind::class, 'recipe' => 'array', 'built_takes' => 'array', 'removed_at' => 'datetime'];
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

    /** @return HasMany<SequenceStep, $this> */
    public function steps(): HasMany
    {
        return $this->hasMany(SequenceStep::class, 'sequence_id')->orderBy('number');
    }

    /** @return HasMany<SequenceVersion, $this> */
    public function versions(): HasMany
    {
        return $this->hasMany(SequenceVersion::class, 'sequence_id')->orderBy('id');
    }

    /** @return HasMany<ScreeningLink, $this> */
    public function links(): HasMany
    {
        return $this->hasMany(ScreeningLink::class, 'sequence_id')->orderByDesc('id');
    }
}
