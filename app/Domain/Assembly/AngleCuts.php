<?php

declare(strict_types=1);

namespace App\Domain\Assembly;

use App\Domain\Sequences\ClipSource;
use App\Domain\Sequences\HeardUnder;
use App\Domain\Sequences\PutPieces;
use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\SequenceKind;
use App\Models\SequenceStep;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Angles;
use Cartella\Core\Cutting\Edit\Join;
use Cartella\Core\Cutting\Edit\LayOver;
use Cartella\Core\Cutting\Edit\Refused;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Collection;

/**
 * Cuts between the cameras of one event. The picture is angle items on the clock of the event; the sound of the whole lies under it
 * and stays where it is.
 */
final readonly class AngleCuts
{
    /** The tracks of such a cut. */
    private const PICTURE = 0;

    private const SOUND = 1;

    public function __construct(private SequenceStore $store) {}

    /** @throws Problem if there is no such event */
    public function make(ShootDay $day, User $user, string $key): StoredSequence
    {
        $event = Events::find($day, $key);
        $clips = Events::clips($day, $event['group'], $event['from'], $event['to']);
        $first = $clips->first(static fn(Clip $clip): bool => $clip->isPicture());
        $rate = $first?->rate() ?? $day->production->rate();
        $frame = $rate->ticksPerFrame();
        // On frames of the clock, the first and the last of which are seen whole.
        $from = -Ticks::floorDiv(-$event['from'], $frame) * $frame;
        $length = intdiv($event['to'] - $from, $frame) * $frame;
        $sounds = [];
        $end = 0;
        foreach ($clips->filter(static fn(Clip $clip): bool => $clip->isSound())->sortBy('placement.start_ticks') as $clip) {
            $item = self::item($clip, $rate, $from, max($end, 0), $length, [], HeardUnder::usual($clip));
            if ($item !== null) {
                $sounds[] = $item;
                $end = $item->recordEndTicks();
            }
        }
        $sequence = new Sequence(
            SequenceStore::freeName($day->production, "$event[label], cut"),
            $rate,
            $from,
            [new Track(TrackKind::Picture, 'On air', [], 'picture'), new Track(TrackKind::Sound, 'The whole', $sounds, 'dialogue')],
            ['event' => ['key' => $key, 'group' => $event['group'], 'from_ticks' => $from, 'length_ticks' => $length]],
        );
        $sequence = $sequence->shaped($rate, $first?->pictureSize());

        return $this->store->create(
            $day->production,
            $user,
            SequenceKind::AngleCut,
            $sequence,
            $day,
            label: "Begin the cut of $event[label]",
        );
    }

    /**
     * @return array{from: int, length: int, rate: FrameRate, clips: Collection<int, Clip>}
     *
     * @throws Problem if the cut is of no event, or its day is gone
     */
    public function event(StoredSequence $cut): array
    {
        $sequence = $this->store->read($cut);
        $event = $sequence->metadata['event'] ?? null;
        if ($cut->day === null || !is_array($event)) {
            throw Problem::refused('angles.none', 'This cut is of no event.', 'Begin one from the angle wall.');
        }

        return [
            'from' => (int) $event['from_ticks'],
            'length' => (int) $event['length_ticks'],
            'rate' => $sequence->rate,
            'clips' => Events::clips(
                $cut->day,
                (int) $event['group'],
                (int) $event['from_ticks'],
                (int) $event['from_ticks'] + (int) $event['length_ticks'],
            ),
        ];
    }

    /**
     * Puts a camera on air in a stretch, as far as it rolls from its beginning on.
     *
     * @param  int  $from  ticks of the cut, as is `$to`; they are led to whole frames
     * @param  'both'|'picture'|'sound'  $takes
     *
     * @throws Problem if the camera was not rolling there, or somebody changed the place meanwhile
     */
    public function turn(StoredSequence $cut, User $user, ?int $step, int $from, int $to, string $letter, string $takes): ?SequenceStep
    {
        ['from' => $zero, 'length' => $length, 'rate' => $rate, 'clips' => $clips] = $this->event($cut);
        $frame = $rate->ticksPerFrame();
        $from = intdiv(max(0, $from), $frame) * $frame;
        $to = intdiv(min($length, $to), $frame) * $frame;
        if ($to <= $from) {
            throw Problem::refused('angles.short', 'That stretch is shorter than a frame.', 'Choose more of it.');
        }
        $clip = $clips->first(
            static fn(Clip $one): bool => $one->isPicture() &&
                $one->device?->letter === $letter &&
                $one->placement->start_ticks <= $zero + $from &&
                $one->placement->start_ticks + (int) $one->duration_ticks >= $zero + $from + $frame,
        );
        if ($clip === null) {
            throw Problem::refused('angles.not_rolling', "$letter was not rolling there.", 'Choose another angle.');
        }
        $angles = self::angles($clips, $clip, $zero + $from, $rate);
        $name = trim(($clip->take?->label() ?? '') . " $letter");
        $picture = self::item($clip, $rate, $zero, $from, $to, $angles, null, $name);
        $sound =
            $takes === 'picture' || ($clip->channels ?? []) === []
                ? null
                : self::item($clip, $rate, $zero, $from, $to, [], HeardUnder::usual($clip), $name);
        if ($takes === 'sound' && $sound === null) {
            throw Problem::refused('angles.silent', "$letter has no sound.", 'Take its picture only.');
        }

        return $this->store->rework(
            $cut,
            $user,
            $step,
            static function (Sequence $sequence) use ($picture, $sound, $takes): Sequence {
                foreach ([self::PICTURE => $takes === 'sound' ? null : $picture, self::SOUND => $sound] as $track => $item) {
                    if ($item !== null) {
                        $sequence = (new LayOver($track, $item->recordStartTicks, $item))->apply($sequence);
                        $sequence = self::joined($sequence, $track, $item->recordEndTicks());
                        $sequence = self::joined($sequence, $track, $item->recordStartTicks);
                    }
                }

                return $sequence;
            },
            ucfirst($takes === 'sound' ? "the sound of $letter" : $letter) . ' on air',
        );
    }

    /**
     * Lays what was cut into another cut, its angles with it: at its end, or where somebody stands in it.
     *
     * @param  int|null  $atTicks  of the other cut; null is its end
     * @return array{step: SequenceStep|null, end: int, rate: FrameRate, others: list<string>} with the other cut's rate, and the names of
     *     other rates of pictures
     */
    public function lay(StoredSequence $cut, StoredSequence $into, User $user, ?int $atTicks): array
    {
        $what = $this->store->read($cut);
        $shown = $what->tracks[self::PICTURE]->items;
        if ($shown === []) {
            throw Problem::refused('angles.empty', 'Nothing is on air yet.', 'Cut to an angle first.');
        }
        // From the first picture to the last; sound that is heard before and behind them stays away.
        [$from, $to] = [$shown[0]->recordStartTicks, end($shown)->recordEndTicks()];
        $this->store->shape($into, $what->rate, $what->pictureSize());
        $end = 0;
        $rate = $what->rate;
        $step = $this->store->rework(
            $into,
            $user,
            null,
            static function (Sequence $sequence) use ($what, $from, $to, $atTicks, &$end, &$rate): Sequence {
                $rate = $sequence->rate;
                $frame = $sequence->rate->ticksPerFrame();
                $at = $atTicks === null ? $sequence->durationTicks() : intdiv($atTicks, $frame) * $frame;
                foreach ([self::PICTURE, self::SOUND] as $track) {
                    $target = $track === self::PICTURE ? PutPieces::pictureTrack($sequence) : PutPieces::soundTrack($sequence);
                    foreach ($what->tracks[$track]->items as $item) {
                        if ($item->isOver($from, $to)) {
                            $part = $item->between($from, $to);
                            $start = intdiv($at + $part->recordStartTicks - $from, $frame) * $frame;
                            $length = intdiv($part->durationTicks, $frame) * $frame;
                            if ($length > 0) {
                                $sequence = (new LayOver($target, $start, $part->with(duration: $length)))->apply($sequence);
                            }
                        }
                    }
                }
                $end = $at + $to - $from;

                return $sequence;
            },
            "Lay in $cut->name",
        );

        $others = [];
        foreach ($shown as $item) {
            $own = $item->source->rate;
            if ($own !== null && $own->ticksPerFrame() !== $rate->ticksPerFrame()) {
                $others[$own->name] = true;
            }
        }

        return ['step' => $step, 'end' => $end, 'rate' => $rate, 'others' => array_map(strval(...), array_keys($others))];
    }

    /** What plays on from what lies before it is no cut. */
    private static function joined(Sequence $sequence, int $track, int $atTicks): Sequence
    {
        foreach ($sequence->tracks[$track]->items as $index => $item) {
            if ($item->recordEndTicks() === $atTicks) {
                try {
                    return (new Join($track, $index))->apply($sequence);
                } catch (Refused) {
                    return $sequence;
                }
            }
        }

        return $sequence;
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @return array<string, Clip> what each camera has of a moment, by letter
     */
    private static function angles(Collection $clips, Clip $own, int $moment, FrameRate $rate): array
    {
        $list = [];
        foreach ($clips as $clip) {
            $letter = $clip->device?->letter;
            if (!$clip->isPicture() || $letter === null || ($letter === $own->device?->letter && $clip->id !== $own->id)) {
                continue;
            }
            $start = $clip->placement->start_ticks;
            if (($start <= $moment && $moment < $start + (int) $clip->duration_ticks) || !isset($list[$letter])) {
                $list[$letter] = $clip;
            }
        }

        return $list;
    }

    /**
     * As much of a clip as lies in a stretch of the cut, in whole frames; null where none does.
     *
     * @param  array<string, Clip>  $angles  by letter; none makes a plain item
     * @param  array<int, float>|null  $channels
     */
    private static function item(
        Clip $clip,
        FrameRate $rate,
        int $zero,
        int $from,
        int $to,
        array $angles,
        ?array $channels,
        ?string $name = null,
    ): ?Item {
        $frame = $rate->ticksPerFrame();
        $start = $clip->placement->start_ticks - $zero;
        $from = max($from, -Ticks::floorDiv(-$start, $frame) * $frame);
        $to = min($to, Ticks::floorDiv($start + (int) $clip->duration_ticks, $frame) * $frame);
        if ($to <= $from) {
            return null;
        }
        $sources = array_map(
            static fn(Clip $one): array => ['source' => ClipSource::of($one, $rate), 'start_ticks' => $one->placement->start_ticks],
            $angles,
        );
        $letter = (string) $clip->device?->letter;
        $lineup = $clip->day === null ? '' : "{$clip->day->ulid} {$clip->placement->group}";

        return new Item(
            $name ?? $clip->title(),
            isset($sources[$letter]) ? $sources[$letter]['source'] : ClipSource::of($clip, $rate),
            $from - $start,
            $to - $from,
            $from,
            metadata: array_filter(['take' => $clip->take?->ulid, 'channels' => $channels]),
            angles: count($sources) < 2 ? null : new Angles($lineup, $letter, $sources),
        );
    }
}
