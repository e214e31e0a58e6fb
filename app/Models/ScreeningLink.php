<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A link by which one person from outside watches one reel. The secret in it is kept only as its hash; `for_name` is written over
 * the picture.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $sequence_id
 * @property int|null $user_id
 * @property string $for_name
 * @property string $secret_hash
 * @property string|null $password
 * @property \Carbon\CarbonInterface|null $expires_at
 * @property \Carbon\CarbonInterface|null $revoked_at
 * @property int $opens
 * @property \Carbon\CarbonInterface|null $last_opened_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 * @property-read StoredSequence $reel
 * @property-read User|null $user
 */
class ScreeningLink extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected $hidden = ['secret_hash', 'password'];

    protected function casts(): array
    {
        return ['expires_at' => 'datetime', 'revoked_at' => 'datetime', 'last_opened_at' => 'datetime'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<StoredSequence, $this> */
    public function reel(): BelongsTo
    {
        return $this->belongsTo(StoredSequence::class, 'sequence_id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
