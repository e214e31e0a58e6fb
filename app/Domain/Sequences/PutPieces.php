<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\SequenceKind;
use App\Models\SequenceStep;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Edit\Append;
use Cartella\Core\Cutting\Edit\Extract;
use Cartella\Core\Cutting\Edit\Insert;
use Cartella\Core\Cutting\Edit\LayOver;
use Cartella\Core\Cutting\Edit\Lift;
use Cartella\Core\Cutting\Edit\Refused;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\FrameRate;

/**
 * Puts stretches of clips into a cut, picture and sound on the tracks that are for them; however many, they are one undoable step.
 */
final readonly class PutPieces
{
    /** Frames of a second of a cut; what was recorded faster is played by real time. */
    private const MOST_FRAMES = 60;

    public function __construct(private SequenceStore $store) {}

    /**
     * @param  non-empty-list<array{clip: Clip, in: int, out: int, take?: Take|null, angle?: string|null, character?: string|null}>  $pieces
     *     ticks of the clip, the end exclusive; in their order
     * @param  'append'|'insert'|'lay_over'|'instead'  $how  `instead`: for all that stands up to `$untilTicks`; what follows comes
     *     sooner or later by as much as the new is shorter or longer
     * @param  int  $atTicks  of the cut as the page saw it
     * @param  'both'|'picture'|'sound'  $takes
     * @param  int|null  $step  the step that the page saw; null for the newest
     * @return array{step: SequenceStep|null, end: int, rate: FrameRate, others: list<string>} with where the last of them ends, the cut's
     *     rate, and the names of the rates of pictures that have another one
     *
     * @throws Problem if one lies outside its clip, the cut has no track for it, or somebody changed the place meanwhile
     */
    public function __invoke(
        StoredSequence $cut,
        User $user,
        array $pieces,
        string $how,
        int $atTicks,
        string $takes,
        ?int $step,
        string $label,
        ?int $track = null,
        int $untilTicks = 0,
    ): array {
        if ($cut->kind === SequenceKind::Reel) {
            throw Problem::refused('cut.reel', 'A reel is made by its recipe.', 'Choose a cut, or make one.');
        }
        if ($takes !== 'sound' && $cut->items === 0) {
            $this->takeShape($cut, $pieces[0]);
        }
        $end = 0;
        $others = [];
        $rate = null;
        $done = $this->store->rework(
            $cut,
            $user,
            $step,
            function (Sequence $sequence) use ($pieces, $how, $atTicks, $untilTicks, $takes, $track, &$end, &$others, &$rate): Sequence {
                $rate = $sequence->rate;
                $frame = $rate->ticksPerFrame();
                $at = intdiv(min($sequence->durationTicks(), max(0, $atTicks)), $frame) * $frame;
                foreach ($pieces as $number => $piece) {
                    $material = Material::of(
                        $piece['clip'],
                        $piece['in'],
                        $piece['out'],
                        $sequence->rate,
                        $piece['take'] ?? null,
                        $piece['angle'] ?? null,
                        $piece['character'] ?? null,
                        $takes !== 'sound',
                    );
                    $own = $takes === 'sound' ? null : $material->picture?->source->rate;
                    if ($own !== null && $own->ticksPerFrame() !== $frame) {
                        $others[$own->name] = true;
                    }
                    $at = $how === 'append' ? self::endOf($sequence) : $at;
                    $on = $piece['character'] ?? null;
                    $sequence =
                        $how !== 'instead'
                            ? self::put($sequence, $material, $how, $at, $takes, $track, $on)
                            : ($number === 0
                                ? self::instead($sequence, $material, $at, $untilTicks, $takes, $track, $on)
                                : self::put($sequence, $material, 'insert', $at, $takes, $track, $on));
                    $at += $material->lengthTicks;
                }
                $end = $at;

                return $sequence;
            },
            $label,
        );

        return ['step' => $done, 'end' => $end, 'rate' => $rate, 'others' => array_map(strval(...), array_keys($others))];
    }

    /**
     * A cut in which nothing lies takes rate and size of its first picture, if a second of that has no more frames than a cut can have.
     *
     * @param  array{clip: Clip, in: int, out: int, take?: Take|null, angle?: string|null}  $piece
     */
    private function takeShape(StoredSequence $cut, array $piece): void
    {
        $usual = $piece['clip']->production->rate();
        $picture = Material::of($piece['clip'], $piece['in'], $piece['out'], $usual, $piece['take'] ?? null, $piece['angle'] ?? null)
            ->picture;
        $rate = $picture?->source->rate;
        if ($rate === null || $rate->nominal > self::MOST_FRAMES) {
            return;
        }
        $clip = Clip::query()->where('production_id', $cut->production_id)->where('ulid', $picture->source->id)->first();
        $this->store->shape($cut, $rate, $clip?->pictureSize());
    }

    /**
     * @param  'both'|'picture'|'sound'  $takes
     *
     * @throws Problem where the cut has no track for it
     * @throws Refused
     */
    private static function instead(
        Sequence $sequence,
        Material $material,
        int $at,
        int $until,
        string $takes,
        ?int $track,
        ?string $character,
    ): Sequence {
        $later = $material->lengthTicks - ($until - $at);
        if ($takes !== 'picture') {
            $sequence = self::withoutSound($sequence, $at, $until, $track);
        }
        if ($later > 0 && $material->picture !== null) {
            // Opened by what comes to lie there in any case.
            $rest = $material->picture->between($material->lengthTicks - $later, $material->lengthTicks);
            $sequence = (new Insert($until, [['track' => self::pictureTrack($sequence, $track), 'item' => $rest]]))->apply($sequence);
        }
        $sequence = self::put($sequence, $material, 'lay_over', $at, $takes, $track, $character);

        return $later < 0 ? (new Extract($until + $later, $until))->apply($sequence) : $sequence;
    }

    /** Without what is heard of the take that is shown at a place: it goes with its picture. */
    private static function withoutSound(Sequence $sequence, int $at, int $until, ?int $track): Sequence
    {
        $shown = $sequence->tracks[self::pictureTrack($sequence, $track)];
        $take = $shown->items[$shown->indexAt($at) ?? -1]->metadata['take'] ?? null;
        foreach ($take === null ? [] : $sequence->tracks as $index => $one) {
            foreach ($one->kind === TrackKind::Sound && !$one->locked ? $one->items : [] as $item) {
                if (($item->metadata['take'] ?? null) === $take && $item->isOver($at, $until)) {
                    $from = max($at, $item->recordStartTicks);
                    $sequence = (new Lift($index, $from, min($until, $item->recordEndTicks())))->apply($sequence);
                }
            }
        }

        return $sequence;
    }

    /** Where what is added at the end begins: behind all that may move. */
    private static function endOf(Sequence $sequence): int
    {
        return max(0, ...array_map(static fn(Track $track): int => $track->endTicks(), $sequence->tracks));
    }

    /**
     * @param  'append'|'insert'|'lay_over'  $how
     * @param  'both'|'picture'|'sound'  $takes
     *
     * @throws Problem where the cut has no track for it
     * @throws Refused
     */
    public static function put(
        Sequence $sequence,
        Material $material,
        string $how,
        int $at,
        string $takes,
        ?int $track,
        ?string $character,
    ): Sequence {
        $picture = $takes === 'sound' ? null : $material->picture;
        $sounds = $takes === 'picture' ? [] : $material->sounds;
        if ($picture === null && $sounds === []) {
            throw Problem::refused('cut.nothing', 'There is nothing of that kind in it.', 'Take picture and sound.');
        }
        $places = [];
        if ($picture !== null) {
            $places[] = [self::pictureTrack($sequence, $track), $picture];
        }
        foreach ($sounds as $sound) {
            $places[] = [self::soundTrack($sequence, $picture === null ? $track : null, $character), $sound];
        }
        if ($how === 'insert') {
            // It opens for as long as the whole lasts, then each lies where it is heard.
            [$first, $item] = $places[0];
            $long = $item->recordStartTicks === 0 && $item->durationTicks === $material->lengthTicks;
            $sequence = (new Insert($at, [['track' => $first, 'item' => $item]]))->apply($sequence);
            $places = $long ? array_slice($places, 1) : $places;
        }
        foreach ($places as [$on, $item]) {
            $sequence =
                $how === 'append' && $sequence->tracks[$on]->endTicks() === $at && $item->recordStartTicks === 0
                    ? (new Append($on, $item))->apply($sequence)
                    : (new LayOver($on, $at + $item->recordStartTicks, $item))->apply($sequence);
        }

        return $sequence;
    }

    /** The wanted one; else the first that may be changed and is for pictures. */
    public static function pictureTrack(Sequence $sequence, ?int $wanted = null): int
    {
        $best = null;
        foreach ($sequence->tracks as $index => $track) {
            if ($track->kind !== TrackKind::Picture || $track->locked) {
                continue;
            }
            if ($index === $wanted) {
                return $index;
            }
            if ($best === null || ($track->role === 'picture' && $sequence->tracks[$best]->role !== 'picture')) {
                $best = $index;
            }
        }

        return $best ?? throw self::noTrack('picture');
    }

    /** That of the character who speaks, where the cut has one; else the first that may be changed and is for dialogue, or for sound. */
    public static function soundTrack(Sequence $sequence, ?int $wanted = null, ?string $character = null): int
    {
        $name = mb_strtolower(trim((string) $character));
        $ranked = [];
        foreach ($sequence->tracks as $index => $track) {
            if ($track->kind !== TrackKind::Sound || $track->locked) {
                continue;
            }
            $ranked[$index] = match (true) {
                $index === $wanted => 4,
                $name !== '' && mb_strtolower($track->name) === $name => 3,
                $track->role === 'dialogue' => 2,
                $track->role === '' => 1,
                default => 0,
            };
        }
        if ($ranked === []) {
            throw self::noTrack('sound');
        }

        return (int) array_search(max($ranked), $ranked, true);
    }

    private static function noTrack(string $kind): Problem
    {
        return Problem::refused('cut.track', "The cut has no open track for $kind.", 'Choose another cut, or open a track of it.');
    }
}
