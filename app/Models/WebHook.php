<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * An address that is told what becomes of hand-offs; the secret signs what it is told.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property string $url
 * @property string $secret
 * @property list<string> $events
 * @property \Carbon\CarbonInterface|null $told_at
 * @property string|null $trouble
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 */
class WebHook extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['events' => 'array', 'secret' => 'encrypted', 'told_at' => 'datetime'];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }
}
