<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A camera or a sound recorder; the device is the angle.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property string $letter
 * @property string $kind
 * @property string $note
 * @property int $lane
 * @property int|null $colour
 * @property \Carbon\CarbonInterface|null $retired_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int|null $clock_ticks
 * @property int|null $look_id
 * @property-read Look|null $look
 */
class Device extends Model
{
    use HasUlid;

    public const KINDS = ['camera', 'recorder', 'phone', 'other'];

    protected $guarded = [];

    protected function casts(): array
    {
        return ['retired_at' => 'datetime'];
    }

    /** @return BelongsTo<Look, $this> */
    public function look(): BelongsTo
    {
        return $this->belongsTo(Look::class);
    }

    public function isRecorder(): bool
    {
        return $this->kind === 'recorder';
    }

    public function title(): string
    {
        return match ($this->kind) {
            'recorder' => 'Recorder ',
            'phone' => 'Phone ',
            'other' => 'Device ',
            default => 'Camera ',
        } . $this->letter;
    }
}
