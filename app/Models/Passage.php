<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A paragraph of what is said in a clip, with the time of every word. Ticks from the clip's first sample.
 *
 * `words` is a list of `[text, start, end, confidence, heard]`: confidence 0 to 1 or null, `heard` what a machine had heard where a
 * person wrote something else. `said` has the words as they are looked for, `pairs` those that stand beside
 * each other.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $transcript_id
 * @property int $clip_id
 * @property int $start_ticks
 * @property int $end_ticks
 * @property string|null $speaker
 * @property bool $is_draft
 * @property array<mixed> $words
 * @property string $said
 * @property string $pairs
 * @property int|null $edited_by
 * @property \Carbon\CarbonInterface|null $edited_at
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Transcript $transcript
 * @property-read Clip $clip
 * @property-read User|null $editor
 */
class Passage extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['words' => 'array', 'is_draft' => 'boolean', 'edited_at' => 'datetime'];
    }

    /** @return BelongsTo<Transcript, $this> */
    public function transcript(): BelongsTo
    {
        return $this->belongsTo(Transcript::class);
    }

    /** @return BelongsTo<Clip, $this> */
    public function clip(): BelongsTo
    {
        return $this->belongsTo(Clip::class);
    }

    /** @return BelongsTo<User, $this> */
    public function editor(): BelongsTo
    {
        return $this->belongsTo(User::class, 'edited_by');
    }
}
