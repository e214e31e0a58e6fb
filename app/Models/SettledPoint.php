<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** An open point that a person has answered with "it is right so". */
class SettledPoint extends Model
{
    protected $guarded = [];
}
