<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\SequenceStep;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Edit\Insert;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\Ticks;

/** Puts stretches of clips into a cut: at its end, or where somebody stands in it; however many, they are one undoable step. */
final class AddPieces
{
    public function __construct(private readonly SequenceStore $store) {}

    /** An empty cut at the production's rate, with a track for picture and one for sound. */
    public function make(Production $production, User $user, string $name): StoredSequence
    {
        $tracks = [new Track(TrackKind::Picture, 'V1', []), new Track(TrackKind::Sound, 'A1', [])];

        return $this->store->create($production, $user, SequenceKind::Cut, new Sequence($name, $production->rate(), 0, $tracks));
    }

    /**
     * @param  non-empty-list<array{clip: Clip, in: int, out: int}>  $pieces  ticks of the clip, the end exclusive; in their order
     * @param  int|null  $atTicks  of the cut; null is its end
     * @return array{step: SequenceStep|null, end: int} with where the last of them ends
     *
     * @throws Problem if one lies outside its clip, or the cut has no track for it
     */
    public function add(StoredSequence $cut, User $user, array $pieces, ?int $atTicks, string $label): array
    {
        if ($cut->kind === SequenceKind::Reel) {
            throw Problem::refused('cut.reel', 'A reel is made by its recipe.', 'Choose a cut, or make one.');
        }

        return $this->store->alone($cut, function (StoredSequence $now) use ($user, $pieces, $atTicks, $label): array {
            $sequence = $this->store->read($now);
            $frame = $sequence->rate->ticksPerFrame();
            $at =
                $atTicks === null ? $sequence->durationTicks() : min($sequence->durationTicks(), intdiv(max(0, $atTicks), $frame) * $frame);
            foreach ($pieces as ['clip' => $clip, 'in' => $in, 'out' => $out]) {
                if ($in < 0 || $out <= $in || $out > (int) $clip->duration_ticks) {
                    throw Problem::refused('cut.piece', "That stretch lies outside {$clip->title()}.", 'Choose it again.');
                }
                // Whole frames of the cut, no farther than the clip goes.
                $length = max(1, Ticks::floorDiv($out - $in + intdiv($frame, 2), $frame)) * $frame;
                $length = min($length, intdiv((int) $clip->duration_ticks - $in, $frame) * $frame);
                if ($length <= 0) {
                    throw Problem::refused('cut.short', 'That stretch is shorter than a frame.', 'Choose more of it.');
                }
                $item = new Item($clip->title(), ClipSource::of($clip, $sequence->rate), $in, $length, $at);
                $sequence = (new Insert($at, [['track' => self::track($sequence, $clip), 'item' => $item]]))->apply($sequence);
                $at += $length;
            }

            return ['step' => $this->store->replace($now, $user, $sequence, $label), 'end' => $at];
        });
    }

    /** The first track that may be changed and holds what the clip is. */
    private static function track(Sequence $sequence, Clip $clip): int
    {
        $wanted = $clip->isSound() ? TrackKind::Sound : TrackKind::Picture;
        foreach ($sequence->tracks as $index => $track) {
            if ($track->kind === $wanted && !$track->locked) {
                return $index;
            }
        }
        throw Problem::refused(
            'cut.track',
            "The cut has no open track for {$wanted->value}.",
            'Choose another cut, or open a track of it.',
        );
    }
}
