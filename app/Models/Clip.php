<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/** One recording as its file says it; times in ticks, `start_ticks` since midnight on the device's own clock. */
class Clip extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'channels' => 'array',
            'facts' => 'array',
            'problems' => 'array',
            'drop_frame' => 'boolean',
            'is_false_start' => 'boolean',
            'is_wild' => 'boolean',
            'proxied_at' => 'datetime',
            'sound_synced_at' => 'datetime',
        ];
    }

    public function rate(): ?FrameRate
    {
        return $this->rate_num === null ? null : FrameRate::ofFraction($this->rate_num, $this->rate_den, $this->drop_frame);
    }

    /** What people call it: the name a pattern gave it, else the file's own. */
    public function title(): string
    {
        return $this->label ?? $this->name;
    }

    public function isPicture(): bool
    {
        return $this->kind === 'picture';
    }

    public function isSound(): bool
    {
        return $this->kind === 'sound';
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

    /** @return BelongsTo<Card, $this> */
    public function card(): BelongsTo
    {
        return $this->belongsTo(Card::class);
    }

    /** @return BelongsTo<Device, $this> */
    public function device(): BelongsTo
    {
        return $this->belongsTo(Device::class);
    }

    /** @return BelongsTo<Take, $this> */
    public function take(): BelongsTo
    {
        return $this->belongsTo(Take::class);
    }

    /** @return BelongsTo<Look, $this> */
    public function look(): BelongsTo
    {
        return $this->belongsTo(Look::class);
    }

    /** @return HasOne<Placement, $this> */
    public function placement(): HasOne
    {
        return $this->hasOne(Placement::class);
    }

    /** @return HasMany<Subclip, $this> */
    public function subclips(): HasMany
    {
        return $this->hasMany(Subclip::class);
    }

    /**
     * The files of its recording below the card's folder: one, or more where the device wrote several.
     *
     * @return non-empty-list<string>
     */
    public function paths(): array
    {
        return $this->facts['parts'] ?? [$this->path];
    }
}
