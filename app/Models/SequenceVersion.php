<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A state of a sequence that somebody gave a name, kept whole.
 *
 * @property int $id
 * @property string $ulid
 * @property int $sequence_id
 * @property int|null $user_id
 * @property string $name
 * @property int $step
 * @property string $content
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read StoredSequence $sequence
 * @property-read User|null $user
 */
class SequenceVersion extends Model
{
    use HasUlid;

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
