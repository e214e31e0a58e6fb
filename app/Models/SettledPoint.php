<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * An open point that a person has answered with "it is right so".
 *
 * @property int $id
 * @property int $shoot_day_id
 * @property string $point
 * @property int|null $user_id
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class SettledPoint extends Model
{
    protected $guarded = [];
}
