<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A volume that is in a reader now, as the watch last saw it.
 *
 * @property int $id
 * @property string $name
 * @property string $fingerprint
 * @property string $state
 * @property array<mixed> $survey
 * @property string $list
 * @property \Carbon\CarbonInterface|null $looked_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int|null $production_id
 * @property string|null $claimed_why
 */
class Volume extends Model
{
    protected $guarded = [];

    protected $hidden = ['list'];

    protected function casts(): array
    {
        return ['survey' => 'array', 'looked_at' => 'datetime'];
    }

    /** @param  array<string, int>  $sizes bytes by relative path */
    public static function pack(array $sizes): string
    {
        return (string) gzcompress(serialize($sizes));
    }

    /** @return array<string, int> bytes by relative path, as the card has them */
    public static function unpack(string $list): array
    {
        return unserialize((string) gzuncompress($list), ['allowed_classes' => false]);
    }
}
