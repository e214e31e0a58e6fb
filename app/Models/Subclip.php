<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;

/** A named range of a clip; a reference, never a copy. Ticks from the clip's first frame, out exclusive. */
class Subclip extends Model
{
    use HasUlid;

    protected $guarded = [];
}
