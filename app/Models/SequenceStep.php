<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * One change of a sequence: what was asked for, what it changed, what leads back; steps are added and never altered.
 *
 * @property int $id
 * @property int $sequence_id
 * @property int $number
 * @property int|null $user_id
 * @property string $label
 * @property string $operation
 * @property string $forward
 * @property string $inverse
 * @property int|null $takes_back
 * @property \Carbon\CarbonInterface|null $created_at
 * @property-read StoredSequence $sequence
 * @property-read User|null $user
 */
class SequenceStep extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @return BelongsTo<StoredSequence, $this> */
    public function sequence(): BelongsTo
    {
        return $this->belongsTo(StoredSequence::class, 'sequence_id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
