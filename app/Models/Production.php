<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\HasUlid;
use Cartella\Core\Slate\NamePattern;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** A film or series: its frame rate, its slate style, and everything shot for it. */
class Production extends Model
{
    use HasUlid;

    protected $guarded = [];

    protected function casts(): array
    {
        return ['drop_frame' => 'boolean', 'slate_style' => SlateStyle::class, 'slate_patterns' => 'array', 'name_patterns' => 'array'];
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

    /** @return HasMany<NoteFile, $this> */
    public function noteFiles(): HasMany
    {
        return $this->hasMany(NoteFile::class);
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

    /** @return HasMany<Reel, $this> */
    public function reels(): HasMany
    {
        return $this->hasMany(Reel::class);
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
