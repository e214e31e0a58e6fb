<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What the editing team asks about a package, or about one thing in it; and the answer that goes with the next one.
 *
 * @property int $id
 * @property string $ulid
 * @property int $handoff_id
 * @property int|null $clip_id
 * @property int|null $take_id
 * @property string|null $path
 * @property string $question
 * @property int|null $user_id
 * @property string|null $answer
 * @property int|null $answered_by
 * @property \Carbon\CarbonInterface|null $answered_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Handoff $handoff
 * @property-read Clip|null $clip
 * @property-read Take|null $take
 * @property-read User|null $user
 * @property-read User|null $answeredBy
 */
class HandoffQuestion extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['answered_at' => 'datetime'];
    }

    /** @return BelongsTo<Handoff, $this> */
    public function handoff(): BelongsTo
    {
        return $this->belongsTo(Handoff::class);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }

    /** @return BelongsTo<Take, $this> */
    public function take(): BelongsTo
    {
        return $this->belongsTo(Take::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<User, $this> */
    public function answeredBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'answered_by');
    }
}
