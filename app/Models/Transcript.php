<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * What is said in one clip: by whom it was found, in which language, and what the floor calls out in it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $clip_id
 * @property int|null $user_id
 * @property string $language
 * @property string $source
 * @property string $engine
 * @property string $model
 * @property array<mixed>|null $calls
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 * @property-read Clip $clip
 * @property-read User|null $user
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Passage> $passages
 */
class Transcript extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['calls' => 'array'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasMany<Passage, $this> */
    public function passages(): HasMany
    {
        return $this->hasMany(Passage::class)->orderBy('start_ticks')->orderBy('id');
    }
}
