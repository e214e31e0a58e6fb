<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * That a person said a card may be wiped: who, when, and which copies that was based on. Never changed afterwards.
 *
 * @property int $id
 * @property int $card_id
 * @property int|null $user_id
 * @property array<mixed> $evidence
 * @property \Carbon\CarbonInterface $created_at
 * @property-read User|null $user
 */
class CardRelease extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['evidence' => 'array', 'created_at' => 'datetime'];
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
