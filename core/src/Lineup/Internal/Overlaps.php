<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatcher;

/**
 * Looks for a clip along every overlap with the recordings, and then with other cameras: what landmarks left without a
 * sure place. Very many recordings are screened first, so that only the likeliest are compared.
 *
 * @internal
 */
final class Overlaps
{
    private const TRIED = 8;

    /** Other cameras' clips that a clip without a place is looked for in; where many have none, the nearest only. */
    private const CAMERAS = 60;

    private const CAMERAS_OF_MANY = 4;

    /** Recordings from which they are screened first, and those that the screening leaves. */
    private const SCREENED = 24;

    private const LIKELY = 6;

    /** Screened places that are worth long windows: those that are no chance among all lags of a day, and no more than these. */
    private const SCORE = 6.0;

    private const CLOSE = 2;

    private ?Screening $screening = null;

    /** @var list<string> recordings by their number in the screening */
    private array $screened = [];

    /** @param  bool  $ofMany  whether many clips have no place yet */
    public function __construct(
        private readonly SoundMatcher $matcher,
        private readonly Heard $heard,
        private readonly Comparisons $comparisons,
        private readonly bool $ofMany,
    ) {}

    /** Along every overlap: first with the recordings, then with other cameras. */
    public function lookFor(LineupClip $clip): void
    {
        $recordings = array_filter(
            $this->heard->clips,
            static fn(LineupClip $other): bool => $other->isSound && $other->device !== $clip->device,
        );
        if (!$this->lookThrough($clip, $recordings)) {
            $cameras = array_filter(
                $this->heard->clips,
                static fn(LineupClip $other): bool => !$other->isSound && $other->device !== $clip->device,
            );
            uasort(
                $cameras,
                static fn(LineupClip $x, LineupClip $y): int => self::apart($clip, $x) <=> self::apart($clip, $y) ?:
                $y->durationTicks <=> $x->durationTicks,
            );
            $this->lookThrough($clip, array_slice($cameras, 0, $this->ofMany ? self::CAMERAS_OF_MANY : self::CAMERAS, true));
        }
    }

    /** Ticks between two clips by whatever clock both have; without one they count as near. */
    private static function apart(LineupClip $a, LineupClip $b): int
    {
        return match (true) {
            $a->recordedTicks !== null && $b->recordedTicks !== null => abs($a->recordedTicks - $b->recordedTicks),
            $a->startTicks !== null && $b->startTicks !== null => abs($a->startTicks - $b->startTicks),
            default => 0,
        };
    }

    /**
     * @param  array<LineupClip>  $others
     * @return bool whether a sure place was found
     */
    private function lookThrough(LineupClip $clip, array $others): bool
    {
        $places = [];
        $isScreened = count($others) >= self::SCREENED && reset($others)->isSound;
        if ($isScreened) {
            $places = $this->screen($clip, $others);
            $others = [];
        }
        foreach ($others as $other) {
            foreach (
                $this->matcher->places($other->id, $this->heard->tracks[$other->id], $clip->id, $this->heard->tracks[$clip->id])
                as $place
            ) {
                $places[] = ['other' => $other->id, 'lag' => $place['lag'], 'votes' => $place['score']];
            }
        }
        usort($places, static fn(array $x, array $y): int => $y['votes'] <=> $x['votes']);
        $byDevice = [];
        foreach (array_slice($places, 0, self::TRIED) as $place) {
            $byDevice[$this->heard->clips[$place['other']]->device][] = $place;
        }
        // What is clear is found without the long windows; what is not is worth them.
        foreach ([false, true] as $closely) {
            $isSure = false;
            foreach ($byDevice as $own) {
                if ($closely && $isScreened) {
                    $own = array_slice(array_filter($own, static fn(array $place): bool => $place['votes'] >= self::SCORE), 0, self::CLOSE);
                }
                $isSure = $this->comparisons->compare($clip, $own, $closely, true) || $isSure;
            }
            if ($isSure) {
                return true;
            }
        }

        return false;
    }

    /**
     * The few recordings of very many in which a clip is worth looking for.
     *
     * @param  array<LineupClip>  $others
     * @return list<array{other: string, lag: int, votes: float}>
     */
    private function screen(LineupClip $clip, array $others): array
    {
        if ($this->screening === null) {
            $this->screening = new Screening();
            foreach ($this->heard->clips as $one) {
                if ($one->isSound) {
                    $this->screened[$this->screening->add($this->heard->tracks[$one->id])] = $one->id;
                }
            }
        }
        $isAsked = array_column($others, 'id', 'id');
        $without = array_map(
            static fn(): bool => true,
            array_filter($this->screened, static fn(string $id): bool => !isset($isAsked[$id])),
        );

        return array_map(
            fn(array $found): array => [
                'other' => $this->screened[$found['recording']],
                'lag' => $found['lag'],
                'votes' => $found['score'],
            ],
            $this->screening->likeliest($this->heard->tracks[$clip->id], self::LIKELY, $without),
        );
    }
}
