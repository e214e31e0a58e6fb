<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A package for the editing team, made at one moment, and their answer to it. */
class Handoff extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['chosen' => 'array', 'summary' => 'array', 'delivered_at' => 'datetime', 'answered_at' => 'datetime'];
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

    /** @return BelongsTo<User, $this> */
    public function answeredBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'answered_by');
    }
}
