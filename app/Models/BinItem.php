<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A clip's place in a bin that somebody made: a reference, never a copy.
 *
 * @property int $id
 * @property int $bin_id
 * @property int $clip_id
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class BinItem extends Model
{
    protected $guarded = [];
}
