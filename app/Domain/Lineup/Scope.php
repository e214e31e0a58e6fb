<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Card;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Support\Problem;
use Illuminate\Database\Eloquent\Builder;

/** What a run of line-up may move: all clips of a day, those of a card or a scene, or some that were chosen. */
final readonly class Scope
{
    /** @param  list<string>  $clips  ULIDs; of a selection only */
    private function __construct(public string $kind, public string $key, public array $clips) {}

    public static function day(): self
    {
        return new self('day', '', []);
    }

    /**
     * @param  list<string>  $clips
     *
     * @throws Problem if the day holds nothing of it
     */
    public static function of(ShootDay $day, string $kind, string $key, array $clips): self
    {
        $scope = new self($kind, $key, $clips);
        if ($scope->narrow(self::clips($day), $day)->doesntExist()) {
            throw $kind === 'day'
                ? Problem::refused('lineup.empty', 'There is nothing to line up yet.', 'Offload a card first.')
                : Problem::refused(
                    'lineup.scope',
                    sprintf('Day %d holds no clips of that.', $day->number),
                    'Choose another card, scene or selection.',
                );
        }

        return $scope;
    }

    /** @param  array<string, mixed>  $subject  of the task */
    public static function fromTask(array $subject): self
    {
        return new self(
            (string) ($subject['scope'] ?? 'day'),
            (string) ($subject['key'] ?? ''),
            array_values((array) ($subject['clips'] ?? [])),
        );
    }

    /** @return array{scope: string, key: string, clips: list<string>} for the task */
    public function toTask(): array
    {
        return ['scope' => $this->kind, 'key' => $this->key, 'clips' => $this->clips];
    }

    public function words(ShootDay $day): string
    {
        return match ($this->kind) {
            'card' => 'card ' . $this->key,
            'scene' => 'scene ' . $this->key,
            'clips' => count($this->clips) === 1 ? 'one clip' : count($this->clips) . ' clips',
            default => 'day ' . $day->number,
        };
    }

    /** @return Builder<Clip> every clip of the day that line-up is about */
    public static function clips(ShootDay $day): Builder
    {
        return Clip::shotOn($day->id)->whereNotNull('duration_ticks')->whereNotNull('device_id');
    }

    /**
     * @param  Builder<Clip>  $clips
     * @return Builder<Clip>
     */
    public function narrow(Builder $clips, ShootDay $day): Builder
    {
        return match ($this->kind) {
            'card' => $clips->whereIn(
                'card_id',
                Card::query()->where('production_id', $day->production_id)->where('roll', $this->key)->select('id'),
            ),
            'scene' => $clips->whereHas('take', fn($take) => $take->where('scene', $this->key)),
            'clips' => $clips->whereIn('ulid', $this->clips),
            default => $clips,
        };
    }
}
