<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Sound\ChannelKind;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Database\Eloquent\Relations\HasOneThrough;

/**
 * One recording as its file says it; times in ticks, `start_ticks` since midnight on the device's own clock.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int|null $device_id
 * @property bool $has_no_slate
 * @property int|null $card_id
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
 * @property int $media_recipe
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int|null $look_id
 * @property int|null $head_frames
 * @property \Carbon\CarbonInterface|null $away_at
 * @property array<mixed>|null $found
 * @property string|null $library_ulid
 * @property string|null $colour
 * @property-read Production $production
 * @property-read ShootDay $day
 * @property-read Card|null $card
 * @property-read Device|null $device
 * @property-read Take|null $take
 * @property-read \Illuminate\Database\Eloquent\Collection<int, TakePart> $parts
 * @property-read Look|null $look
 * @property-read Placement|null $placement
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Marker> $markers
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Passage> $passages
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Subclip> $subclips
 */
class Clip extends Model
{
    use HasUlid;

    /** A still has no length of its own; a picture this long is made of it, so that a cut can show it. Ticks. */
    public const STILL_TICKS = 60 * Ticks::PER_SECOND;

    protected $guarded = [];

    /** @return Builder<self> what cameras and recorders shot on a day: not what was brought in, nor what was taken away */
    public static function shotOn(int $day): Builder
    {
        return (new self())
            ->newQuery()
            ->where('clips.shoot_day_id', $day)
            ->whereIn('clips.kind', ['picture', 'sound'])
            ->whereNull('clips.away_at')
            ->whereNull('clips.import_kind');
    }

    protected function casts(): array
    {
        return [
            'channels' => 'array',
            'facts' => 'array',
            'problems' => 'array',
            'drop_frame' => 'boolean',
            'is_false_start' => 'boolean',
            'is_wild' => 'boolean',
            'has_no_slate' => 'boolean',
            'proxied_at' => 'datetime',
            'away_at' => 'datetime',
            'found' => 'array',
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

    public function isStill(): bool
    {
        return $this->kind === 'still';
    }

    /** Whether a cut shows it: a picture, or a still. */
    public function isSeen(): bool
    {
        return $this->isPicture() || $this->isStill();
    }

    /** @return array{width: int, height: int}|null pixels; null where its file does not say */
    public function pictureSize(): ?array
    {
        [$width, $height] = [(int) ($this->facts['width'] ?? 0), (int) ($this->facts['height'] ?? 0)];

        return $width > 0 && $height > 0 ? ['width' => $width, 'height' => $height] : null;
    }

    /** How much of it a cut can play, ticks. */
    public function playableTicks(): int
    {
        return $this->isStill() ? self::STILL_TICKS : (int) $this->duration_ticks;
    }

    /** @return list<array<string, mixed>> its channels without timecode, hum and the like, as far as anybody has judged them */
    public function worthHearing(): array
    {
        $kinds = $this->facts['channel_kinds'] ?? null;
        $worth = is_array($kinds) ? ChannelKind::worth(array_map(ChannelKind::from(...), $kinds)) : null;

        return array_values(
            array_filter(
                $this->channels ?? [],
                static fn(array $channel): bool => $worth === null || in_array((int) $channel['index'], $worth, true),
            ),
        );
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

    /**
     * The first of the takes that it belongs to; nearly always the only one.
     *
     * @return HasOneThrough<Take, TakePart, $this>
     */
    public function take(): HasOneThrough
    {
        return $this->hasOneThrough(Take::class, TakePart::class, 'clip_id', 'id', 'id', 'take_id')
            ->orderBy('take_parts.in_ticks')
            ->orderBy('take_parts.id');
    }

    /** @return HasMany<TakePart, $this> */
    public function parts(): HasMany
    {
        return $this->hasMany(TakePart::class)->orderBy('in_ticks')->orderBy('id');
    }

    /** Whether a person said of which take it is, or that it is of none; machines leave it so. */
    public function isSaidByPerson(): bool
    {
        return $this->has_no_slate || $this->parts->contains('said_by', 'person');
    }

    /** Of which takes it is, in a few words: `12A/3`, or `12A/1 to 12A/6`; null where it is of none. */
    public function slates(): ?string
    {
        return self::slatesOf($this->parts->map(static fn(TakePart $part): string => $part->take->label())->all());
    }

    /** @param  array<string>  $labels  of the takes that one clip holds, in its order */
    public static function slatesOf(array $labels): ?string
    {
        $labels = array_values(array_unique($labels));

        return match (count($labels)) {
            0 => null,
            1 => $labels[0],
            default => $labels[0] . ' to ' . $labels[count($labels) - 1],
        };
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

    /** @return HasMany<Marker, $this> */
    public function markers(): HasMany
    {
        return $this->hasMany(Marker::class)->orderBy('in_ticks')->orderBy('id');
    }

    /** @return HasMany<Passage, $this> */
    public function passages(): HasMany
    {
        return $this->hasMany(Passage::class)->orderBy('start_ticks')->orderBy('id');
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
