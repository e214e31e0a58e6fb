<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** One undoable step of one person: the rows it touched, as they were and as it left them. */
class Change extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return ['rows' => 'array', 'undone_at' => 'datetime'];
    }
}
