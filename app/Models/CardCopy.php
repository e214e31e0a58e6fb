<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Where one copy of a card lies; the path is below the store's root.
 *
 * @property int $id
 * @property int $card_id
 * @property string $store
 * @property string $path
 * @property int|null $device
 * @property string|null $read_from
 * @property string|null $manifest
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property \Carbon\CarbonInterface|null $checked_at
 * @property array<mixed>|null $differences
 * @property-read Card $card
 */
class CardCopy extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return ['checked_at' => 'datetime', 'differences' => 'array'];
    }

    /** @return BelongsTo<Card, $this> */
    public function card(): BelongsTo
    {
        return $this->belongsTo(Card::class);
    }

    /** As far as the last look at it tells; what is new in the folder does no harm to what was copied. */
    public function isWhole(): bool
    {
        return array_filter(array_diff_key($this->differences ?? [], ['new' => 0])) === [];
    }
}
