<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * One day of shooting of one unit; a night shoot belongs to the day that began before it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $number
 * @property \Carbon\CarbonImmutable $date
 * @property string $unit
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Card> $cards
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Clip> $clips
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Take> $takes
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Placement> $placements
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ClockOffset> $clockOffsets
 * @property-read \Illuminate\Database\Eloquent\Collection<int, LineupRun> $lineupRuns
 * @property-read \Illuminate\Database\Eloquent\Collection<int, StoredSequence> $reels
 */
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

    /** @return HasMany<StoredSequence, $this> those that nobody removed */
    public function reels(): HasMany
    {
        return $this->hasMany(StoredSequence::class)->where('kind', SequenceKind::Reel)->whereNull('removed_at');
    }
}
