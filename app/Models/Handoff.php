<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A package for the editing team, made at one moment, and their answer to it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int|null $user_id
 * @property int $number
 * @property string $title
 * @property array<mixed> $chosen
 * @property string $folder
 * @property string $state
 * @property array<mixed>|null $summary
 * @property \Carbon\CarbonInterface|null $delivered_at
 * @property \Carbon\CarbonInterface|null $answered_at
 * @property int|null $answered_by
 * @property string|null $query
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property array<string, array{string, string}>|null $packing
 * @property-read Production $production
 * @property-read User|null $user
 * @property-read User|null $answeredBy
 * @property-read \Illuminate\Database\Eloquent\Collection<int, HandoffQuestion> $questions
 */
class Handoff extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['chosen' => 'array', 'summary' => 'array', 'packing' => 'array', 'delivered_at' => 'datetime', 'answered_at' => 'datetime'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<User, $this> */
    public function answeredBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'answered_by');
    }

    /** @return HasMany<HandoffQuestion, $this> */
    public function questions(): HasMany
    {
        return $this->hasMany(HandoffQuestion::class)->orderBy('id');
    }
}
