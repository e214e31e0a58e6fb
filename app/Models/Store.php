<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;

/**
 * A volume that a production's copies go to. What is in its place now is asked of the system, not of this row.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property string $key
 * @property string $name
 * @property string $path
 * @property string $mark
 * @property int $position
 * @property \Carbon\CarbonInterface|null $retired_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class Store extends Model
{
    use HasUlid;

    /** Lies at the top of the volume and says which one it is. */
    public const MARKER = '.cartella-store';

    protected $guarded = [];

    protected function casts(): array
    {
        return ['retired_at' => 'datetime'];
    }

    /** Whether the volume that is meant lies there now, and not an empty folder or another volume in its place. */
    public function isThere(): bool
    {
        return self::markIn($this->path) === $this->mark;
    }

    /** The number of the device that it lies on now; null while it is not there. */
    public function device(): ?int
    {
        clearstatcache(true, $this->path);

        return $this->isThere() ? @stat($this->path)['dev'] ?? null : null;
    }

    public function freeBytes(): ?int
    {
        $free = $this->isThere() ? @disk_free_space($this->path) : false;

        return $free === false ? null : (int) $free;
    }

    public static function markIn(string $path): ?string
    {
        $file = $path . '/' . self::MARKER;
        $mark =
            is_link($file) || !is_file($file)
                ? null
                : json_decode((string) @file_get_contents($file, false, null, 0, 1000), true)['id'] ?? null;

        return is_string($mark) ? $mark : null;
    }
}
