<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What one source says of one field of a take, and where and when it said so; `value` is JSON text.
 *
 * @property int $id
 * @property int $take_id
 * @property string $field
 * @property string $source
 * @property string $place
 * @property string $value
 * @property \Carbon\CarbonInterface $said_at
 */
class TakeFact extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['said_at' => 'datetime'];
    }
}
