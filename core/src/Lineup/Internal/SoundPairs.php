<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\CartellaException;
use Cartella\Core\Lineup\Journal;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Lineup\SoundMatcher;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;

/**
 * Chooses which pairs of clips are compared closely, and collects the matches.
 *
 * Landmarks say of every clip which few others it may have heard the same with; only those are compared. A clip that
 * they leave without a sure place on a recording is then looked for along every overlap with the recordings, and at
 * last with the other cameras: that costs most, and few need it. Where there are very many of both, one product of long
 * integers says of each clip in which few recordings it is worth looking, and a second process does half of the clips. Of
 * hundreds of recordings that product comes first: landmarks of so many are alike by chance.
 *
 * @internal
 */
final class SoundPairs
{
    /** Votes of landmarks below which a place is not worth a comparison. */
    private const VOTES = 4;

    /** Share of the best place's votes from which another one is its rival. */
    private const RIVAL = 0.4;

    /** Places in files of one device that are compared at most. */
    private const TRIED = 3;

    /** Devices that a clip is compared with by its landmarks: recorders, other cameras once a recorder is sure, and before. */
    private const RECORDERS = 4;

    private const CLOSING = 2;

    private const CARRYING = 5;

    /** Clips without a place from which a second process does its share. */
    private const MANY = 40;

    /**
     * Recordings among which landmarks no longer tell one from another: chance alone gives the best of so many more votes than a poor
     * guide has with its own, and the envelopes of all are screened sooner than the index is read.
     */
    private const LARGE = 300;

    /** Steps of 10 ms that two clips run beside each other at least, to say anything of each other's place. */
    private const BESIDE = 500;

    private readonly Landmarks $landmarks;

    private readonly Heard $heard;

    private readonly SoundMatcher $matcher;

    private readonly Comparisons $comparisons;

    /** @var array<string, int> numbers of the landmarks by clip */
    private array $numbers = [];

    /** @var array<int, string> clips by the numbers of their landmarks */
    private array $ids = [];

    /** @var array<string, array<int, true>> numbers by device */
    private array $ofDevice = [];

    /** @var array<string, string> reasons by clip */
    public array $silent = [];

    /**
     * @param  (callable(string $id, int $done, int $total, SoundMatch|null $found): void)|null  $progress called after each clip,
     *     with its best match
     */
    public function __construct(private $progress = null, private readonly ?Journal $journal = null)
    {
        $this->landmarks = new Landmarks();
        $this->heard = new Heard();
        $this->matcher = new SoundMatcher();
        $this->comparisons = new Comparisons($this->matcher, $this->heard);
    }

    /**
     * @param  list<LineupClip>  $clips
     * @return list<SoundMatch> usable ones
     */
    public function find(array $clips): array
    {
        $this->load($clips);
        $asking = array_values(
            array_filter(
                $this->heard->clips,
                fn(LineupClip $clip): bool => $clip->lockedTicks === null && (!$clip->isSound || $this->isSecondRecorder($clip)),
            ),
        );
        $isLarge = $this->recordings() >= self::LARGE;
        // What a person has placed asks for nothing; it answers those that ask.
        foreach ($isLarge ? [] : $asking as $done => $clip) {
            $this->look('landmarks', $clip, fn() => $this->byLandmarks($clip));
            $this->tell($clip, $done + 1, count($asking));
        }
        $this->alongOverlaps($this->withoutPlace($asking), $isLarge ? 0 : count($asking));
        if ($isLarge) {
            $this->afterScreening($asking);
        }
        $this->askForRecordings();

        return array_values(
            array_filter($this->comparisons->compared, static fn(?SoundMatch $match): bool => $match?->isUsable() === true),
        );
    }

    private function recordings(): int
    {
        return count(array_filter($this->heard->clips, static fn(LineupClip $clip): bool => $clip->isSound));
    }

    /**
     * @param  list<LineupClip>  $asking
     * @return list<LineupClip> those that no comparison has placed surely
     */
    private function withoutPlace(array $asking): array
    {
        $isPlaced = [];
        $hasRecordings = $this->recordings() > 0;
        foreach ($this->comparisons->compared as $match) {
            // A camera that another one carries may have run with a recording all the same.
            if ($match?->isSure() === true && (!$hasRecordings || $this->heard->clips[$match->a]->isSound)) {
                $isPlaced[$match->b] = true;
            }
        }

        return array_values(array_filter($asking, static fn(LineupClip $clip): bool => !isset($isPlaced[$clip->id])));
    }

    /**
     * Of very many recordings: clips that the screening left are looked for by their landmarks where they are few, and cameras that ran
     * with one recording are compared with each other, so that a wrong place shows.
     *
     * @param  list<LineupClip>  $asking
     */
    private function afterScreening(array $asking): void
    {
        $left = $this->withoutPlace($asking);
        foreach (count($left) < self::MANY ? $left : [] as $clip) {
            $this->look('landmarks', $clip, fn() => $this->byLandmarks($clip));
        }
        $along = [];
        foreach ($this->comparisons->compared as $match) {
            if ($match?->isSure() === true && $this->heard->clips[$match->a]->isSound && !$this->heard->clips[$match->b]->isSound) {
                $along[$match->a][$match->b] ??= $match;
            }
        }
        foreach ($along as $matches) {
            foreach ($matches as $id => $match) {
                $clip = $this->heard->clips[$id];
                $this->look('beside', $clip, fn() => $this->besideOthers($clip, $match, $matches));
            }
        }
    }

    /** @param  array<string, SoundMatch>  $matches  of all that ran with the same recording, by clip */
    private function besideOthers(LineupClip $clip, SoundMatch $match, array $matches): void
    {
        $byDevice = [];
        $step = intdiv(Ticks::PER_SECOND, GuideTrack::STEP_RATE);
        foreach ($matches as $id => $other) {
            $lag = intdiv($match->offsetTicks - $other->offsetTicks, $step);
            $steps = $this->heard->tracks[$id]->steps();
            $together = min($steps, $lag + $this->heard->tracks[$clip->id]->steps()) - max(0, $lag);
            if ($this->heard->clips[$id]->device !== $clip->device && $together >= self::BESIDE) {
                $byDevice[$this->heard->clips[$id]->device] ??= ['other' => (string) $id, 'lag' => $lag, 'votes' => $together];
            }
        }
        foreach (array_slice($byDevice, 0, self::CLOSING) as $place) {
            $this->comparisons->compare($clip, [$place], false);
        }
    }

    /**
     * Along every overlap, clips without a sure place; every other one by a second process where there are many.
     *
     * @param  list<LineupClip>  $left
     * @param  int  $before  looks that are done already
     */
    private function alongOverlaps(array $left, int $before): void
    {
        $isMany = count($left) >= self::MANY;
        $overlaps = new Overlaps($this->matcher, $this->heard, $this->comparisons, $isMany);
        $done = 0;
        $one = function (LineupClip $clip, ?array $found = null) use (&$done, $left, $before, $overlaps): void {
            $this->look('fully', $clip, fn() => $found === null ? $overlaps->lookFor($clip) : $this->comparisons->take($clip, $found));
            $this->tell($clip, $before + ++$done, $before + count($left));
        };
        $shares = [$left, []];
        if ($isMany && SecondProcess::canHear($this->heard)) {
            $isKnown = fn(LineupClip $clip): bool => $this->journal?->of("fully $clip->id") !== null;
            $shares = [array_filter($left, $isKnown), []];
            foreach (array_values(array_filter($left, static fn(LineupClip $clip): bool => !$isKnown($clip))) as $n => $clip) {
                $shares[$n % 2][] = $clip;
            }
        }
        $own = static function () use ($shares, $one): void {
            foreach ($shares[0] as $clip) {
                $one($clip);
            }
        };
        if ($shares[1] === []) {
            $own();

            return;
        }
        // What the second process could not do is done here.
        $found = SecondProcess::beside($this->heard, $shares[1], $own);
        foreach ($shares[1] as $clip) {
            $one($clip, $found($clip));
        }
    }

    /** @param  callable(): void  $work  compares; what it found before, in a run that was killed, stands */
    private function look(string $how, LineupClip $clip, callable $work): void
    {
        $known = $this->journal?->of("$how $clip->id");
        if ($known !== null) {
            $this->comparisons->recall($clip, $known);

            return;
        }
        $this->comparisons->begin();
        $work();
        $this->journal?->keep("$how $clip->id", $this->comparisons->pairsOf($clip), $this->comparisons->changed());
    }

    private function tell(LineupClip $clip, int $done, int $total): void
    {
        if ($this->progress !== null) {
            ($this->progress)($clip->id, $done, $total, $this->comparisons->best($clip));
        }
    }

    /** A recording that nobody asked for may have run with a clip that a person has placed, which asks for nothing. */
    private function askForRecordings(): void
    {
        $isAsked = [];
        foreach ($this->comparisons->compared as $match) {
            if ($match?->isUsable() === true) {
                $isAsked[$match->a] = $isAsked[$match->b] = true;
            }
        }
        $hasPlaced = array_filter($this->heard->clips, static fn(LineupClip $clip): bool => $clip->lockedTicks !== null) !== [];
        foreach ($hasPlaced ? $this->heard->clips : [] as $clip) {
            if ($clip->isSound && $clip->lockedTicks === null && !isset($isAsked[$clip->id])) {
                $this->byLandmarks($clip);
            }
        }
    }

    /** @param  list<LineupClip>  $clips */
    private function load(array $clips): void
    {
        usort($clips, static fn(LineupClip $x, LineupClip $y): int => $y->isSound <=> $x->isSound);
        foreach ($clips as $clip) {
            if ($clip->sound === null) {
                $this->silent[$clip->id] = 'It has no sound.';

                continue;
            }
            try {
                $track = ($clip->sound)();
                if ($track->hasUsableSound()) {
                    $this->heard->add($clip, $track);
                    $number = $this->landmarks->add($track);
                    $this->numbers[$clip->id] = $number;
                    $this->ids[$number] = $clip->id;
                    $this->ofDevice[$clip->device][$number] = true;
                } else {
                    $this->silent[$clip->id] =
                        $track->steps() < GuideTrack::STEP_RATE ? 'Its sound is shorter than one second.' : 'Nothing can be heard on it.';
                }
            } catch (CartellaException $trouble) {
                $this->silent[$clip->id] = 'Its sound could not be read. ' . $trouble->getMessage();
            }
        }
    }

    /** A recorder beside the first one: it is placed along the first as a camera is. */
    private function isSecondRecorder(LineupClip $clip): bool
    {
        $first = array_values($this->heard->clips)[0];

        return $clip->device !== $first->device;
    }

    private function byLandmarks(LineupClip $clip): void
    {
        $recorders = $cameras = [];
        foreach ($this->landmarks->like($this->numbers[$clip->id], $this->ofDevice[$clip->device]) as $number => $places) {
            $other = $this->heard->clips[$this->ids[$number]];
            foreach ($places as $place) {
                if ($place['votes'] < self::VOTES) {
                    continue;
                }
                $found = ['other' => $other->id, 'lag' => $place['lag'], 'votes' => $place['votes']];
                if ($other->isSound) {
                    $recorders[$other->device][] = $found;
                } else {
                    $cameras[$other->device][] = $found;
                }
            }
        }
        $isSure = $this->compareLikely($clip, $recorders, self::RECORDERS);
        // Cameras close a cycle where the place is known, and carry one another where it is not.
        $this->compareLikely($clip, $cameras, $isSure ? self::CLOSING : self::CARRYING);
    }

    /**
     * @param  array<string, non-empty-list<array{other: string, lag: int, votes: int}>>  $byDevice
     * @param  int  $limit  devices that are compared with, the likeliest
     * @return bool whether a sure place is among them
     */
    private function compareLikely(LineupClip $clip, array $byDevice, int $limit): bool
    {
        foreach ($byDevice as $device => $places) {
            usort($byDevice[$device], static fn(array $x, array $y): int => $y['votes'] <=> $x['votes']);
        }
        usort($byDevice, static fn(array $x, array $y): int => $y[0]['votes'] <=> $x[0]['votes']);
        $isSure = false;
        foreach (array_slice($byDevice, 0, $limit) as $places) {
            $least = self::RIVAL * $places[0]['votes'];
            $rivals = array_values(array_filter($places, static fn(array $place): bool => $place['votes'] >= $least));
            $isSure = $this->comparisons->compare($clip, array_slice($rivals, 0, self::TRIED), false) || $isSure;
        }

        return $isSure;
    }
}
