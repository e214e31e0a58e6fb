<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A camera or a sound recorder; the device is the angle. */
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
