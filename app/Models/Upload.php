<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * Files that somebody drops on a page: on their way while it has no card, copied and proved as that card afterwards. Bytes.
 *
 * @property int $id
 * @property string $ulid
 * @property int $production_id
 * @property int $shoot_day_id
 * @property int $user_id
 * @property int|null $card_id
 * @property string|null $import_kind
 * @property string $fingerprint
 * @property int $files
 * @property int $size_bytes
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property-read Production $production
 * @property-read ShootDay $day
 * @property-read User $user
 * @property-read Card|null $card
 * @property-read \Illuminate\Database\Eloquent\Collection<int, UploadFile> $parts
 */
class Upload extends Model
{
    use HasUlid;

    protected $guarded = [];

    /** @return BelongsTo<Production, $this> */
    public function production(): BelongsTo
    {
        return $this->belongsTo(Production::class);
    }

    /** @return BelongsTo<ShootDay, $this> */
    public function day(): BelongsTo
    {
        return $this->belongsTo(ShootDay::class, 'shoot_day_id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<Card, $this> */
    public function card(): BelongsTo
    {
        return $this->belongsTo(Card::class);
    }

    /** @return HasMany<UploadFile, $this> */
    public function parts(): HasMany
    {
        return $this->hasMany(UploadFile::class)->orderBy('number');
    }
}
