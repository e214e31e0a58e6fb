<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What a program shows to read one production; the token itself is kept nowhere.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int|null $user_id
 * @property string $name
 * @property string $token_hash
 * @property \Carbon\CarbonInterface|null $used_at
 * @property \Carbon\CarbonInterface|null $revoked_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 */
class ApiToken extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['used_at' => 'datetime', 'revoked_at' => 'datetime'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }
}
