<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * How one person likes a table of one production: its columns, their widths and order.
 *
 * @property int $id
 * @property int $user_id
 * @property int $production_id
 * @property string $name
 * @property array<mixed> $value
 */
class Preference extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['value' => 'array'];
    }
}
