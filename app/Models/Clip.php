<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * One recording as its file says it; times in ticks, `start_ticks` since midnight on the device's own clock.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int|null $device_id
 * @property int|null $card_id
 * @property int|null $take_id
 * @property string|null $slate_from
 * @property string $kind
 * @property string|null $import_kind
 * @property string $name
 * @property string|null $label
 * @property string $path
 * @property string $path_hash
 * @property int|null $duration_ticks
 * @property int|null $rate_num
 * @property int|null $rate_den
 * @property bool $drop_frame
 * @property int|null $frames
 * @property int|null $start_ticks
 * @property string|null $recorded_at
 * @property int|null $sample_rate
 * @property array<mixed>|null $channels
 * @property array<mixed>|null $facts
 * @property array<mixed>|null $problems
 * @property bool $is_false_start
 * @property bool $is_wild
 * @property \Carbon\CarbonInterface|null $proxied_at
 * @property \Carbon\CarbonInterface|null $sound_synced_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int|null $look_id
 * @property int|null $head_frames
 * @property-read Production $production
 * @property-read ShootDay $day
 * @property-read Card|null $card
 * @property-read Device|null $device
 * @property-read Take|null $take
 * @property-read Look|null $look
 * @property-read Placement|null $placement
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Subclip> $subclips
 */
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
