<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Look\Cdl;
use Illuminate\Database\Eloquent\Model;

/**
 * A colour correction of a production: what an angle shall look like in every player, and in the cut.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property string $name
 * @property string $source
 * @property array<mixed> $slope
 * @property array<mixed> $offset
 * @property array<mixed> $power
 * @property float $saturation
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 */
class Look extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['slope' => 'array', 'offset' => 'array', 'power' => 'array', 'saturation' => 'float'];
    }

    public function cdl(): Cdl
    {
        return Cdl::of($this->slope, $this->offset, $this->power, $this->saturation);
    }

    /** A picture's own look, else its device's. */
    public static function of(Clip $clip): ?self
    {
        return $clip->isPicture() ? $clip->look ?? $clip->device?->look : null;
    }

    /**
     * @return array{ulid: string, name: string, of: 'clip'|'device', slope: list<float>, offset: list<float>, power: list<float>,
     *     saturation: float}|null as players know it
     */
    public static function told(Clip $clip): ?array
    {
        $look = self::of($clip);

        return $look === null
            ? null
            : ['ulid' => $look->ulid, 'name' => $look->name, 'of' => $clip->look_id === null ? 'device' : 'clip'] + $look->cdl()->toArray();
    }
}
