<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** One person's in and out on a clip; ticks from its first frame, out exclusive. */
class ClipMark extends Model
{
    protected $guarded = [];
}
