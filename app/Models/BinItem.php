<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A clip's place in a bin that somebody made: a reference, never a copy. */
class BinItem extends Model
{
    protected $guarded = [];
}
