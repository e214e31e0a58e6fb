<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A long piece of work that a worker does: its state, its counts and how it ended.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int|null $user_id
 * @property string $kind
 * @property string $title
 * @property array<mixed> $subject
 * @property string $state
 * @property int $tries
 * @property string|null $job
 * @property string|null $alone
 * @property string|null $worker
 * @property int $tried_at_mark
 * @property int $done
 * @property int $total
 * @property int $done_bytes
 * @property int $total_bytes
 * @property int $bytes_per_second
 * @property float|null $done_per_minute
 * @property string $now
 * @property array<mixed>|null $result
 * @property \Carbon\CarbonInterface|null $cancel_asked_at
 * @property \Carbon\CarbonInterface|null $started_at
 * @property \Carbon\CarbonInterface|null $ended_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int $copied_bytes
 * @property array<mixed>|null $by_store
 * @property-read Production $production
 * @property-read User|null $user
 */
class Task extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'subject' => 'array',
            'by_store' => 'array',
            'result' => 'array',
            'cancel_asked_at' => 'datetime',
            'started_at' => 'datetime',
            'ended_at' => 'datetime',
        ];
    }

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    public function isOver(): bool
    {
        return $this->ended_at !== null;
    }
}
