<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A volume that is in a reader now, as the watch last saw it.
 *
 * @property array<string, mixed> $survey {@see \Cartella\Core\Custody\CardSurvey}
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
