<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A scene's number and heading; from the script also who speaks, its length in eighths and its place. */
class Scene extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return ['characters' => 'array'];
    }
}
