<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Slate\NamePattern;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A film or series: its frame rate, its slate style, and everything shot for it.
 *
 * @property int $id
 * @property string $ulid
 * @property string $name
 * @property int $rate_num
 * @property int $rate_den
 * @property bool $drop_frame
 * @property \Cartella\Core\Slate\SlateStyle $slate_style
 * @property \Carbon\CarbonInterface|null $created_at
 * @property \Carbon\CarbonInterface|null $updated_at
 * @property string|null $card_template
 * @property array<mixed>|null $slate_patterns
 * @property array<mixed>|null $name_patterns
 * @property string $script
 * @property list<string>|null $bin_groups
 * @property bool $is_library
 * @property array<mixed>|null $words_service
 * @property list<array{kind: 'picture'|'sound', name: string, role: string}>|null $track_plan
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ProductionField> $productionFields
 * @property-read \Illuminate\Database\Eloquent\Collection<int, User> $users
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Store> $stores
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ShootDay> $days
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Device> $devices
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Scene> $scenes
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Task> $tasks
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Card> $cards
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Upload> $uploads
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Clip> $clips
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Take> $takes
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ScriptNoteFile> $noteFiles
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Bin> $bins
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Look> $looks
 * @property-read \Illuminate\Database\Eloquent\Collection<int, LineupRun> $lineupRuns
 * @property-read \Illuminate\Database\Eloquent\Collection<int, StoredSequence> $sequences
 * @property-read \Illuminate\Database\Eloquent\Collection<int, StoredSequence> $reels
 * @property-read \Illuminate\Database\Eloquent\Collection<int, WebHook> $webHooks
 * @property-read \Illuminate\Database\Eloquent\Collection<int, ApiToken> $apiTokens
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Handoff> $handoffs
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Change> $changes
 */
class Production extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'drop_frame' => 'boolean',
            'slate_style' => SlateStyle::class,
            'slate_patterns' => 'array',
            'name_patterns' => 'array',
            'bin_groups' => 'array',
            'is_library' => 'boolean',
            'words_service' => 'encrypted:array',
            'track_plan' => 'array',
        ];
    }

    /**
     * A clip below a production is its own; to look at, also one of the imports that another production shares.
     *
     * @param  string  $childType
     * @param  mixed  $value
     * @param  string|null  $field
     */
    public function resolveChildRouteBinding($childType, $value, $field): ?Model
    {
        $own = parent::resolveChildRouteBinding($childType, $value, $field);
        if ($own !== null || $childType !== 'clip' || !request()->isMethodSafe()) {
            return $own;
        }

        return Clip::query()
            ->whereNull('clips.away_at')
            ->where('ulid', $value)
            ->whereNotNull('import_kind')
            ->whereHas('production', static fn($production) => $production->where('is_library', true))
            ->first();
    }

    public function rate(): FrameRate
    {
        return FrameRate::ofFraction($this->rate_num, $this->rate_den, $this->drop_frame);
    }

    /**
     * The spellings of slates that this production looks for, in their order.
     *
     * @return list<string>
     */
    public function slatePatterns(): array
    {
        return $this->slate_patterns ?? ($this->slate_style === SlateStyle::Letter ? SlateReader::LETTER : SlateReader::NUMBER);
    }

    /** @return list<string> ready-made name patterns */
    public function namePatterns(): array
    {
        return $this->name_patterns ?? NamePattern::READY;
    }

    private ?TakeFields $fields = null;

    /** Everything that is known of its takes, those fields among it that it added for itself. */
    public function fields(): TakeFields
    {
        return $this->fields ??= new TakeFields(
            $this->productionFields()->whereNull('retired_at')->get()->map(static fn(ProductionField $own): Field => $own->field())->all(),
        );
    }

    /** @return HasMany<ProductionField, $this> */
    public function productionFields(): HasMany
    {
        return $this->hasMany(ProductionField::class)->orderBy('id');
    }

    public function slateReader(): SlateReader
    {
        return SlateReader::of($this->slatePatterns(), $this->slate_style);
    }

    /** @return BelongsToMany<User, $this> */
    public function users(): BelongsToMany
    {
        return $this->belongsToMany(User::class)->withPivot('role');
    }

    /** @return HasMany<Store, $this> */
    public function stores(): HasMany
    {
        return $this->hasMany(Store::class);
    }

    /** @return HasMany<ShootDay, $this> */
    public function days(): HasMany
    {
        return $this->hasMany(ShootDay::class);
    }

    /** @return HasMany<Device, $this> */
    public function devices(): HasMany
    {
        return $this->hasMany(Device::class);
    }

    /** @return HasMany<Scene, $this> */
    public function scenes(): HasMany
    {
        return $this->hasMany(Scene::class);
    }

    /** @return HasMany<Task, $this> */
    public function tasks(): HasMany
    {
        return $this->hasMany(Task::class);
    }

    /** @return HasMany<Card, $this> */
    public function cards(): HasMany
    {
        return $this->hasMany(Card::class);
    }

    /** @return HasMany<Upload, $this> */
    public function uploads(): HasMany
    {
        return $this->hasMany(Upload::class);
    }

    /** @return HasMany<Clip, $this> */
    public function clips(): HasMany
    {
        return $this->hasMany(Clip::class);
    }

    /** @return HasMany<Take, $this> */
    public function takes(): HasMany
    {
        return $this->hasMany(Take::class);
    }

    /** @return HasMany<ScriptNoteFile, $this> */
    public function noteFiles(): HasMany
    {
        return $this->hasMany(ScriptNoteFile::class);
    }

    /** @return HasMany<Bin, $this> */
    public function bins(): HasMany
    {
        return $this->hasMany(Bin::class);
    }

    /** @return HasMany<Look, $this> */
    public function looks(): HasMany
    {
        return $this->hasMany(Look::class);
    }

    /** @return HasMany<LineupRun, $this> */
    public function lineupRuns(): HasMany
    {
        return $this->hasMany(LineupRun::class);
    }

    /** @return HasMany<StoredSequence, $this> those that nobody removed */
    public function sequences(): HasMany
    {
        return $this->hasMany(StoredSequence::class)->whereNull('removed_at');
    }

    /** @return HasMany<StoredSequence, $this> */
    public function reels(): HasMany
    {
        return $this->sequences()->where('kind', SequenceKind::Reel);
    }

    /** @return HasMany<WebHook, $this> */
    public function webHooks(): HasMany
    {
        return $this->hasMany(WebHook::class)->orderBy('id');
    }

    /** @return HasMany<ApiToken, $this> */
    public function apiTokens(): HasMany
    {
        return $this->hasMany(ApiToken::class)->orderBy('id');
    }

    /** @return HasMany<Handoff, $this> */
    public function handoffs(): HasMany
    {
        return $this->hasMany(Handoff::class);
    }

    /** @return HasMany<Change, $this> */
    public function changes(): HasMany
    {
        return $this->hasMany(Change::class);
    }
}
