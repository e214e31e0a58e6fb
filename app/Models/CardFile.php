<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One file of a card with its checksum and in how many places it is verified.
 *
 * @property int $id
 * @property int $card_id
 * @property string $path
 * @property string $path_hash
 * @property int $size_bytes
 * @property string|null $algorithm
 * @property string|null $hash
 * @property int $copies
 * @property \Carbon\CarbonInterface|null $verified_at
 * @property string|null $fault
 */
class CardFile extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['verified_at' => 'datetime'];
    }
}
