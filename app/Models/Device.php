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

    protected $guarded = [];

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
        return ($this->isRecorder() ? 'Recorder ' : 'Camera ').$this->letter;
    }
}
