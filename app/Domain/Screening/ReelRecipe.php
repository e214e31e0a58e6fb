<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Lineup\SlateStart;
use App\Domain\Sequences\ClipSource;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Time\Ticks;

/**
 * What a review reel is made by: the takes of a day in slate order, all or the circled, each with the picture of the first camera
 * from its slate on. Marks that people set on clips play no part.
 */
final readonly class ReelRecipe
{
    /** The label of the first frame: one hour, as is usual. */
    private const START_TICKS = 3600 * Ticks::PER_SECOND;

    public function __construct(private ShootDay $day, private bool $circledOnly) {}

    /** @param  array<string, mixed>  $stored */
    public static function of(ShootDay $day, array $stored): self
    {
        return new self($day, (bool) ($stored['circled_only'] ?? false));
    }

    /** @return array{circled_only: bool} */
    public function toArray(): array
    {
        return ['circled_only' => $this->circledOnly];
    }

    /**
     * The takes and the stretches of their pictures, in order.
     *
     * @return list<array{take: Take, clip: Clip, part: TakePart}>
     */
    public function chosen(): array
    {
        $takes = Take::query()
            ->where('shoot_day_id', $this->day->id)
            ->when($this->circledOnly, static fn($query) => $query->where('status', TakeStatus::Circled->value))
            ->orderBy('sort_key')
            ->with([
                'parts' => static fn($query) => $query->orderBy('in_ticks'),
                'clips' => static fn($query) => $query
                    ->where('kind', 'picture')
                    ->whereNotNull('proxied_at')
                    ->with(['device', 'card', 'production']),
            ])
            ->get();
        $chosen = [];
        foreach ($takes as $take) {
            // On a day without slates a device has many clips of the one take, and all of the first camera's are shown.
            $parts = $take->parts->groupBy('clip_id');
            $lane = $take->clips->min(static fn(Clip $clip): int => $clip->device->lane ?? 99);
            $first = $take->clips->filter(static fn(Clip $clip): bool => ($clip->device->lane ?? 99) === $lane)->sortBy('start_ticks');
            foreach ($first as $clip) {
                foreach ($parts[$clip->id] ?? [] as $part) {
                    $chosen[] = ['take' => $take, 'clip' => $clip, 'part' => $part];
                }
            }
        }

        return $chosen;
    }

    /**
     * A short text that is another one when the reel would be.
     *
     * @param  list<array{take: Take, clip: Clip, part: TakePart}>  $chosen
     */
    public function fingerprint(array $chosen): string
    {
        $facts = [$this->day->production->rate()->label()];
        foreach ($chosen as ['take' => $take, 'clip' => $clip, 'part' => $part]) {
            $facts[] = [
                $take->ulid,
                $take->label(),
                $take->is_tail_slate,
                $clip->ulid,
                $clip->title(),
                $clip->head_frames,
                $clip->start_ticks,
                $clip->duration_ticks,
                $clip->proxied_at?->getTimestamp(),
                $part->in_ticks,
                $part->out_ticks,
            ];
        }

        return hash('sha256', json_encode($facts, JSON_THROW_ON_ERROR));
    }

    /** @param  list<array{take: Take, clip: Clip, part: TakePart}>  $chosen */
    public function sequence(string $name, array $chosen): Sequence
    {
        $rate = $this->day->production->rate();
        $items = [];
        $at = 0;
        foreach ($chosen as ['take' => $take, 'clip' => $clip, 'part' => $part]) {
            // Of a picture over several takes, the stretch that belongs to this one.
            $in = $part->in_ticks ?? ($take->is_tail_slate ? 0 : self::slateStart($clip));
            $frames = Ticks::toFrames(($part->out_ticks ?? (int) $clip->duration_ticks) - $in, $rate);
            if ($frames < 1) {
                continue;
            }
            $length = Ticks::ofFrames($frames, $rate);
            $items[] = new Item(
                $take->label() . ' ' . $clip->title(),
                ClipSource::of($clip, $rate),
                $in,
                $length,
                $at,
                metadata: ['take' => $take->ulid],
            );
            $at += $length;
        }

        return new Sequence($name, $rate, self::START_TICKS, [new Track(TrackKind::Picture, 'V', $items)]);
    }

    /** Where a person has it begin, else the frame a second before the clap; the clip's first frame when no clap is heard. */
    private static function slateStart(Clip $clip): int
    {
        return Ticks::ofFrames($clip->head_frames ?? (SlateStart::heard($clip) ?? 0), $clip->rate() ?? $clip->production->rate());
    }
}
