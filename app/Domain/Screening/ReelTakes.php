<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Bins\BinRows;
use App\Domain\Lineup\CheckPoints;
use App\Domain\Sequences\ClipSource;
use App\Domain\Words\ActionCalls;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Take;
use App\Models\TakePart;
use App\Support\Problem;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;

/**
 * What a recipe chooses as things are now: takes, and the stretches of their pictures that are shown. In and out points that people
 * set on clips play no part.
 *
 * @phpstan-type Piece array{clip: Clip, part: TakePart, in: int, frames: int, slate: int|null, action: int}
 */
final readonly class ReelTakes
{
    /** The label of the first frame: one hour, as is usual. */
    private const START_TICKS = 3600 * Ticks::PER_SECOND;

    /** So much before the slate closes, it can be read. */
    private const READABLE = Ticks::PER_SECOND;

    /** Slates that a look at a recipe names. */
    private const SHOWN = 12;

    public function __construct(private BinRows $bins, private CheckPoints $points) {}

    /**
     * @return list<array{take: Take, pieces: non-empty-list<Piece>}> in the recipe's order; takes without a picture are left out
     *
     * @throws Problem if they are more than a reel holds
     */
    public function of(Production $production, ReelRecipe $recipe): array
    {
        $takes = $this->takes($production, $recipe)
            ->when($recipe->circledOnly, static fn(Builder $query) => $query->where('status', TakeStatus::Circled->value))
            ->orderBy('sort_key')
            ->orderBy('id')
            ->limit(ReelRecipe::MOST + 1)
            ->with([
                'day',
                'parts' => static fn($query) => $query->orderBy('in_ticks'),
                'clips' => static fn($query) => $query
                    ->where('kind', 'picture')
                    ->whereNotNull('proxied_at')
                    ->whereNull('away_at')
                    ->with(['device', 'card', 'placement']),
            ])
            ->get();
        if ($takes->count() > ReelRecipe::MOST) {
            throw Problem::refused(
                'reel.long',
                sprintf('Those are more than %d takes.', ReelRecipe::MOST),
                'Choose fewer days or scenes, or the circled takes only.',
            );
        }
        $rate = $production->rate();
        $calls = ActionCalls::of($takes->modelKeys());
        $chosen = [];
        foreach ($takes as $take) {
            $pieces = [];
            foreach ($this->pictures($take, $recipe) as ['clip' => $clip, 'part' => $part]) {
                $piece = $this->piece($take, $clip, $part, $recipe->begin, $rate, $calls[$take->id][$clip->id] ?? null);
                if ($piece !== null) {
                    $pieces[] = $piece;
                }
            }
            if ($pieces !== []) {
                $chosen[] = ['take' => $take, 'pieces' => $pieces];
            }
        }
        if ($recipe->order === ReelOrder::Shot) {
            usort($chosen, static fn(array $x, array $y): int => self::shot($x) <=> self::shot($y));
        }

        return $chosen;
    }

    /** @return array{takes: int, ticks: int, slates: list<string>} how many and how long, and the slates of the first few */
    public function looked(Production $production, ReelRecipe $recipe): array
    {
        $chosen = $this->of($production, $recipe);
        $frames = array_sum(array_map(static fn(array $one): int => (int) array_sum(array_column($one['pieces'], 'frames')), $chosen));

        return [
            'takes' => count($chosen),
            'ticks' => Ticks::ofFrames($frames, $production->rate()),
            'slates' => array_map(static fn(array $one): string => $one['take']->label(), array_slice($chosen, 0, self::SHOWN)),
        ];
    }

    /**
     * A short text that is another one when the reel would be.
     *
     * @param  list<array{take: Take, pieces: non-empty-list<Piece>}>  $chosen
     */
    public function fingerprint(Production $production, ReelRecipe $recipe, array $chosen): string
    {
        $facts = [$production->rate()->label(), $recipe->toArray()];
        foreach ($chosen as ['take' => $take, 'pieces' => $pieces]) {
            $facts[] = [$take->ulid, $take->label()];
            foreach ($pieces as $piece) {
                $clip = $piece['clip'];
                $facts[] = [
                    ...[$clip->ulid, $clip->title(), $clip->start_ticks, $clip->proxied_at?->getTimestamp()],
                    ...[$piece['in'], $piece['frames'], $piece['slate'], $piece['action']],
                ];
            }
        }

        return hash('sha256', json_encode($facts, JSON_THROW_ON_ERROR));
    }

    /**
     * @param  array{take: Take, pieces: non-empty-list<Piece>}  $one
     * @return non-empty-list<Item> one after the other from the sequence's first frame
     */
    public function items(Production $production, array $one): array
    {
        $rate = $production->rate();
        $items = [];
        foreach ($one['pieces'] as $piece) {
            $items[] = new Item(
                $one['take']->label() . ' ' . $piece['clip']->title(),
                ClipSource::of($piece['clip'], $rate),
                $piece['in'],
                Ticks::ofFrames($piece['frames'], $rate),
                0,
                metadata: ['take' => $one['take']->ulid, 'slate' => $piece['slate'], 'action' => $piece['action']],
            );
        }

        return $items;
    }

    /** @param  list<Item>  $items  in their order; each is put where the one before it ends */
    public function sequence(string $name, FrameRate $rate, array $items): Sequence
    {
        $laid = [];
        $at = 0;
        foreach ($items as $item) {
            $laid[] = $item->at($at);
            $at += $item->durationTicks;
        }

        return new Sequence($name, $rate, self::START_TICKS, [new Track(TrackKind::Picture, 'V', $laid)]);
    }

    /** @return Builder<Take> */
    private function takes(Production $production, ReelRecipe $recipe): Builder
    {
        $takes = Take::query()->where('production_id', $production->id);

        return match ($recipe->from) {
            ReelFrom::Days => $takes->whereIn('shoot_day_id', $production->days()->whereIn('ulid', $recipe->what)->select('id')),
            ReelFrom::Scenes => $takes->whereIn('scene', $recipe->what),
            ReelFrom::Bin => $takes->whereIntegerInRaw('id', $this->bins->takeIds($production, $recipe->what[0] ?? '')),
            ReelFrom::Takes => $takes->whereIn('ulid', $recipe->what),
        };
    }

    /**
     * The pictures of a take that the recipe wants, cameras in the order of their lanes. On a day without slates a device has many clips
     * of the one take, and all of them are shown.
     *
     * @return list<array{clip: Clip, part: TakePart}>
     */
    private function pictures(Take $take, ReelRecipe $recipe): array
    {
        $parts = $take->parts->groupBy('clip_id');
        /** @var Collection<int, Collection<int, Clip>> $byDevice */
        $byDevice = $take->clips
            ->groupBy(static fn(Clip $clip): int => $clip->device_id ?? 0)
            ->sortBy(static fn(Collection $clips): int => $clips->first()->device->lane ?? 99);
        $wanted = match ($recipe->angles) {
            ReelAngles::First, ReelAngles::Together => $byDevice->take(1),
            ReelAngles::Each => $byDevice,
            ReelAngles::Device => $byDevice->filter(
                static fn(Collection $clips): bool => ($clips->first()->device->letter ?? '') === $recipe->device,
            ),
            ReelAngles::Best => $byDevice->sortByDesc(static fn(Collection $clips): int => self::seen($clips, $parts))->take(1),
        };
        $shown = [];
        foreach ($wanted as $clips) {
            foreach ($clips->sortBy('start_ticks') as $clip) {
                foreach ($parts[$clip->id] ?? [] as $part) {
                    $shown[] = ['clip' => $clip, 'part' => $part];
                }
            }
        }

        return $shown;
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  Collection<int, Collection<int, TakePart>>  $parts
     * @return int ticks of the take that they hold
     */
    private static function seen(Collection $clips, Collection $parts): int
    {
        return (int) $clips->sum(
            static fn(Clip $clip): int => (int) ($parts[$clip->id] ?? new Collection())->sum(
                static fn(TakePart $part): int => ($part->out_ticks ?? (int) $clip->duration_ticks) - ($part->in_ticks ?? 0),
            ),
        );
    }

    /**
     * @param  int|null  $called  where action is called for, if that was heard
     * @return Piece|null null for a stretch without a frame
     */
    private function piece(Take $take, Clip $clip, TakePart $part, ReelBegin $begin, FrameRate $usual, ?int $called): ?array
    {
        $rate = $clip->rate() ?? $usual;
        $from = $part->in_ticks ?? 0;
        $to = $part->out_ticks ?? (int) $clip->duration_ticks;
        ['slate' => $slate, 'action' => $action] = $this->points->begins($clip, $from, $to, $take->is_tail_slate);
        if ($called !== null && $called > max($from, $slate ?? $from) && $called < $to) {
            $action = $called;
        }
        // Where a person has it begin goes before what was heard.
        $head = $clip->head_frames === null || $part->in_ticks !== null ? null : Ticks::ofFrames($clip->head_frames, $rate);
        $wanted = match ($begin) {
            ReelBegin::Whole => $from,
            ReelBegin::Action => $action,
            ReelBegin::Slate => match (true) {
                $take->is_tail_slate => $from,
                $head !== null => $head,
                default => $slate === null ? $from : $slate - self::READABLE,
            },
        };
        $in = Ticks::ofFrames(Ticks::toFrames(max($from, min($wanted, $to - 1)), $rate), $rate);
        $frames = Ticks::toFrames($to - $in, $usual);

        return $frames < 1 ? null : compact('clip', 'part', 'in', 'frames', 'slate', 'action');
    }

    /**
     * @param  array{take: Take, pieces: non-empty-list<Piece>}  $one
     * @return list<mixed> by which takes stand as they were shot: the day, then the moment on its clock
     */
    private static function shot(array $one): array
    {
        $moments = array_map(
            static fn(array $piece): int => ($piece['clip']->placement->start_ticks ?? (int) $piece['clip']->start_ticks) + $piece['in'],
            $one['pieces'],
        );

        return [$one['take']->day->date, min($moments), $one['take']->sort_key];
    }
}
