<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * One camera card or recorder disk as it came, with its copies and its custody state.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int|null $device_id
 * @property string $roll
 * @property string $volume
 * @property string $state
 * @property int $files
 * @property int $verified_files
 * @property int $size_bytes
 * @property array<mixed>|null $faults
 * @property \Carbon\CarbonInterface|null $verified_at
 * @property \Carbon\CarbonInterface|null $released_at
 * @property int|null $released_by
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property string|null $fingerprint
 * @property int $use_number
 * @property string|null $first_at
 * @property string|null $last_at
 * @property int|null $clock_ticks
 * @property array<mixed>|null $chosen_stores
 * @property int $matched_files
 * @property string|null $import_kind
 * @property \Carbon\CarbonInterface|null $away_at
 * @property-read Production $production
 * @property-read ShootDay $day
 * @property-read Device|null $device
 * @property-read User|null $releasedBy
 * @property-read \Illuminate\Database\Eloquent\Collection<int, CardCopy> $copies
 * @property-read \Illuminate\Database\Eloquent\Collection<int, CardFile> $cardFiles
 * @property-read \Illuminate\Database\Eloquent\Collection<int, CardRelease> $releases
 * @property-read Upload|null $upload
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Clip> $clips
 * @property-read int|null $clips_count
 * @property-read int|string|null $clips_sum_duration_ticks
 */
class Card extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'faults' => 'array',
            'chosen_stores' => 'array',
            'verified_at' => 'datetime',
            'released_at' => 'datetime',
            'away_at' => 'datetime',
        ];
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

    /** @return BelongsTo<Device, $this> */
    public function device(): BelongsTo
    {
        return $this->belongsTo(Device::class);
    }

    /** @return BelongsTo<User, $this> */
    public function releasedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'released_by');
    }

    /** @return HasMany<CardCopy, $this> */
    public function copies(): HasMany
    {
        return $this->hasMany(CardCopy::class);
    }

    /** @return HasMany<CardFile, $this> */
    public function cardFiles(): HasMany
    {
        return $this->hasMany(CardFile::class);
    }

    /** @return HasMany<CardRelease, $this> */
    public function releases(): HasMany
    {
        return $this->hasMany(CardRelease::class)->orderBy('id');
    }

    /** @return HasOne<Upload, $this> what still has its files, where they were dropped on a page */
    public function upload(): HasOne
    {
        return $this->hasOne(Upload::class);
    }

    /** @return HasMany<Clip, $this> */
    public function clips(): HasMany
    {
        // Clips that other productions took from a library stand on the same files.
        return $this->hasMany(Clip::class)->whereNull('clips.library_ulid');
    }

    /** Every file verified in two places, which may still be one disk: that is asked of the system when the card is released. */
    public function isSafe(): bool
    {
        return $this->verified_at !== null &&
            $this->files > 0 &&
            $this->verified_files === $this->files &&
            $this->copies->filter(static fn(CardCopy $copy): bool => $copy->isWhole())->count() >= 2;
    }
}
