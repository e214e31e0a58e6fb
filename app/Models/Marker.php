<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A place of a clip, or a stretch, that has a name: said by its file, or by a person. Ticks from the clip's first frame.
 *
 * @property int $id
 * @property string $ulid
 * @property int $clip_id
 * @property int|null $user_id
 * @property \App\Models\MarkerKind $kind
 * @property int $in_ticks
 * @property int|null $out_ticks
 * @property string $name
 * @property string $note
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property \App\Models\MarkerAbout|null $about
 * @property-read Clip $clip
 * @property-read User|null $user
 */
class Marker extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['kind' => MarkerKind::class, 'about' => MarkerAbout::class];
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
