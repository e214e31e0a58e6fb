<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Something's place in a bin that somebody made: a reference, never a copy. `ref` is the reference as it is written; the one column
 * of the four that is set makes it go with what it names.
 *
 * @property int $id
 * @property int $bin_id
 * @property int|null $clip_id
 * @property int|null $take_id
 * @property int|null $sequence_id
 * @property int|null $subclip_id
 * @property string|null $ref
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class BinItem extends Model
{
    protected $guarded = [];
}
