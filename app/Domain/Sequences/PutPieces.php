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
use Cartella\Core\Cutting\Edit\Insert;
use Cartella\Core\Cutting\Edit\LayOver;
use Cartella\Core\Cutting\Edit\Refused;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;

/**
 * Puts stretches of clips into a cut, picture and sound on the tracks that are for them; however many, they are one undoable step.
 */
final readonly class PutPieces
{
    public function __construct(private SequenceStore $store) {}

    /**
     * @param  non-empty-list<array{clip: Clip, in: int, out: int, take?: Take|null, angle?: string|null, character?: string|null}>  $pieces
     *     ticks of the clip, the end exclusive; in their order
     * @param  'append'|'insert'|'lay_over'  $how
     * @param  int  $atTicks  of the cut as the page saw it
     * @param  'both'|'picture'|'sound'  $takes
     * @param  int|null  $step  the step that the page saw; null for the newest
     * @return array{step: SequenceStep|null, end: int} with where the last of them ends
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
    ): array {
        if ($cut->kind === SequenceKind::Reel) {
            throw Problem::refused('cut.reel', 'A reel is made by its recipe.', 'Choose a cut, or make one.');
        }
        $end = 0;
        $done = $this->store->rework(
            $cut,
            $user,
            $step,
            function (Sequence $sequence) use ($pieces, $how, $atTicks, $takes, $track, &$end): Sequence {
                $frame = $sequence->rate->ticksPerFrame();
                $at = intdiv(min($sequence->durationTicks(), max(0, $atTicks)), $frame) * $frame;
                foreach ($pieces as $piece) {
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
                    $at = $how === 'append' ? self::endOf($sequence) : $at;
                    $sequence = self::put($sequence, $material, $how, $at, $takes, $track, $piece['character'] ?? null);
                    $at += $material->lengthTicks;
                }
                $end = $at;

                return $sequence;
            },
            $label,
        );

        return ['step' => $done, 'end' => $end];
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
