<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Slate\Slate;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A take of a setup: description, status, flags, notes and keywords belong here, not to a file.
 *
 * `claims` keeps what each source said of the number, `settled` which of those disagreements a person has decided;
 * `set_by` says of each field which source it has its value from, and since when.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property string $scene
 * @property string $setup
 * @property int $take
 * @property string $part
 * @property string $sort_key
 * @property string $description
 * @property string $size
 * @property string $status
 * @property bool $is_mos
 * @property bool $is_tail_slate
 * @property bool $is_wild
 * @property bool $is_pickup
 * @property bool $is_false_start
 * @property bool $is_guide_only
 * @property array<mixed>|null $absent_devices
 * @property string|null $notes
 * @property string $keywords
 * @property array<mixed>|null $claims
 * @property array<mixed>|null $settled
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property array<mixed>|null $set_by
 * @property string $name
 * @property array<mixed>|null $listening
 * @property array<mixed>|null $own
 * @property-read \Illuminate\Database\Eloquent\Collection<int, TakeFact> $saidFacts
 * @property-read Production $production
 * @property-read ShootDay $day
 * @property-read \Illuminate\Database\Eloquent\Collection<int, TakePart> $parts
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Clip> $clips
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ScreeningNote> $screeningNotes
 * @property-read \Illuminate\Database\Eloquent\Collection<int, TakeRating> $ratings
 */
class Take extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'listening' => 'array',
            'is_mos' => 'boolean',
            'is_tail_slate' => 'boolean',
            'is_wild' => 'boolean',
            'is_guide_only' => 'boolean',
            'is_pickup' => 'boolean',
            'is_false_start' => 'boolean',
            'absent_devices' => 'array',
            'own' => 'array',
            'claims' => 'array',
            'settled' => 'array',
            'set_by' => 'array',
        ];
    }

    /** As people write it: `12A/3`, `12A/3b`. */
    public function label(): string
    {
        return $this->setup . '/' . $this->take . $this->part;
    }

    /**
     * What it is beside its status, in the trade's words.
     *
     * @return list<string>
     */
    public function marks(): array
    {
        $marks = array_filter(
            TakeFields::standard()->all(),
            fn(Field $field): bool => $field->type === FieldType::YesNo && (bool) $this->{$field->key},
        );

        return array_values(array_map(static fn(Field $field): string => $field->label, $marks));
    }

    /** The value of a field of {@see \Cartella\Core\Fields\TakeFields}; null where it never had one. */
    public function valueOf(string $field): mixed
    {
        return str_starts_with($field, 'own:') ? $this->own[substr($field, 4)] ?? null : $this->{$field};
    }

    public function setValueOf(string $field, mixed $value): void
    {
        if (!str_starts_with($field, 'own:')) {
            $this->{$field} = $value;

            return;
        }
        $own = $this->own ?? [];
        $own[substr($field, 4)] = $value;
        ksort($own);
        $this->own = $own;
    }

    public function slate(): Slate
    {
        return new Slate($this->scene, $this->setup, $this->take, part: $this->part ?? '', isPickup: (bool) $this->is_pickup);
    }

    /** @return HasMany<TakeFact, $this> */
    public function saidFacts(): HasMany
    {
        return $this->hasMany(TakeFact::class);
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

    /** @return HasMany<TakePart, $this> */
    public function parts(): HasMany
    {
        return $this->hasMany(TakePart::class);
    }

    /** @return BelongsToMany<Clip, $this> */
    public function clips(): BelongsToMany
    {
        $clips = $this->belongsToMany(Clip::class, 'take_parts');
        $clips->distinct();

        return $clips;
    }

    /** @return HasMany<ScreeningNote, $this> */
    public function screeningNotes(): HasMany
    {
        return $this->hasMany(ScreeningNote::class);
    }

    /** @return HasMany<TakeRating, $this> */
    public function ratings(): HasMany
    {
        return $this->hasMany(TakeRating::class);
    }
}
