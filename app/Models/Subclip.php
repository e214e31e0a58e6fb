<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Footage\ChannelSet;
use Cartella\Core\Footage\Reference;
use Cartella\Core\Footage\ReferenceKind;
use Cartella\Core\Footage\Span;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A reference to a clip that has a name: a stretch of it, some of its channels, or both. Ticks from the clip's first frame, out
 * exclusive; null is all of it.
 *
 * @property int $id
 * @property string $ulid
 * @property int $clip_id
 * @property int|null $user_id
 * @property string $name
 * @property int|null $in_ticks
 * @property int|null $out_ticks
 * @property array<mixed>|null $channels
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property int $handle_ticks
 * @property-read Clip $clip
 */
class Subclip extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['channels' => 'array'];
    }

    public function reference(): Reference
    {
        return new Reference(
            ReferenceKind::Clip,
            $this->clip->ulid,
            span: $this->in_ticks === null || $this->out_ticks === null ? null : new Span($this->in_ticks, $this->out_ticks),
            channels: ($this->channels ?? []) === [] ? null : new ChannelSet(array_map(intval(...), $this->channels)),
        );
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }
}
