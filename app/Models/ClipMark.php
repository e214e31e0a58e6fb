<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One person's in and out on a clip; ticks from its first frame, out exclusive.
 *
 * @property int $id
 * @property int $clip_id
 * @property int $user_id
 * @property int|null $in_ticks
 * @property int|null $out_ticks
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class ClipMark extends Model
{
    protected $guarded = [];
}
