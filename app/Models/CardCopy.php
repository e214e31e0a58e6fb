<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** Where one copy of a card lies; the path is below the store's root. */
class CardCopy extends Model
{
    protected $guarded = [];
}
