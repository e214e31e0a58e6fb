<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A scene's number and heading; from the script also who speaks, its length in eighths and its place.
 *
 * @property int $id
 * @property int $production_id
 * @property string $name
 * @property string $heading
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property array<mixed>|null $characters
 * @property int|null $eighths
 * @property int|null $script_order
 * @property string|null $text
 */
class Scene extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return ['characters' => 'array'];
    }
}
