<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A scene's number and heading. */
class Scene extends Model
{
    protected $guarded = [];
}
