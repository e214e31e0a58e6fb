<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** What somebody said while watching a take; `at_ticks` from the clip's first frame. */
class Note extends Model
{
    use HasUlid;

    protected $guarded = [];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }
}
