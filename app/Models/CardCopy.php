<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** Where one copy of a card lies; the path is below the store's root. */
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
