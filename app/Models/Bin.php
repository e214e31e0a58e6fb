<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;

/** A folder that somebody made; the bins of the scenes are not rows but follow the slates. */
class Bin extends Model
{
    use HasUlid;

    protected $guarded = [];

    /** @return BelongsToMany<Clip, $this> */
    public function clips(): BelongsToMany
    {
        return $this->belongsToMany(Clip::class, 'bin_items')->withTimestamps();
    }
}
