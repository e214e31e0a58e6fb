<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\CartellaException;
use Cartella\Core\Lineup\Journal;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Lineup\SoundMatcher;
use Cartella\Core\Sound\GuideTrack;

/**
 * Chooses which pairs of clips are compared closely, and collects the matches.
 *
 * Landmarks say of every clip which few others it may have heard the same with; only those are compared. A clip that
 * they leave without a sure place on a recording is then looked for along every overlap with the recordings, and at
 * last with the other cameras: that costs most, and few need it.
 *
 * @internal
 */
final class SoundPairs
{
    /** Votes of landmarks below which a place is not worth a comparison. */
    private const VOTES = 4;

    /** Share of the best place's votes from which another one is its rival. */
    private const RIVAL = 0.4;

    /** Places that are compared at most: in files of one device by landmarks, and in all files after a full look. */
    private const TRIED = 3;

    private const TRIED_FULLY = 8;

    /** Devices that a clip is compared with by its landmarks: recorders, other cameras once a recorder is sure, and before. */
    private const RECORDERS = 4;

    private const CLOSING = 2;

    private const CARRYING = 5;

    /** Other cameras' clips that a clip without a place is looked for in. */
    private const CAMERAS = 60;

    private readonly SoundMatcher $matcher;

    private readonly Landmarks $landmarks;

    /** @var array<string, LineupClip> those that can be heard, recorders first */
    private array $heard = [];

    /** @var array<string, GuideTrack> */
    private array $tracks = [];

    /** @var array<string, int> numbers of the landmarks by clip */
    private array $numbers = [];

    /** @var array<int, string> clips by the numbers of their landmarks */
    private array $ids = [];

    /** @var array<string, array<int, true>> numbers by device */
    private array $ofDevice = [];

    /** @var array<string, SoundMatch|null> what was compared, by pair */
    private array $compared = [];

    /** @var array<string, true> pairs whose match the present look has set */
    private array $changed = [];

    /** @var array<string, list<string>> pairs by the clip that asked */
    private array $pairs = [];

    /** @var array<string, string> reasons by clip */
    public array $silent = [];

    /**
     * @param  (callable(string $id, int $done, int $total, SoundMatch|null $found): void)|null  $progress called after each clip,
     *     with its best match
     */
    public function __construct(private $progress = null, private readonly ?Journal $journal = null)
    {
        $this->matcher = new SoundMatcher();
        $this->landmarks = new Landmarks();
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
                $this->heard,
                fn(LineupClip $clip): bool => $clip->lockedTicks === null && (!$clip->isSound || $this->isSecondRecorder($clip)),
            ),
        );
        $isPlaced = [];
        // What a person has placed asks for nothing; it answers those that ask.
        foreach ($asking as $done => $clip) {
            $this->look('landmarks', $clip, fn() => $this->byLandmarks($clip));
            $this->tell($clip, $done + 1, count($asking));
        }
        $hasRecordings = array_filter($this->heard, static fn(LineupClip $clip): bool => $clip->isSound) !== [];
        foreach ($this->compared as $match) {
            // A camera that another one carries may have run with a recording all the same.
            if ($match?->isSure() === true && (!$hasRecordings || $this->heard[$match->a]->isSound)) {
                $isPlaced[$match->b] = true;
            }
        }
        $left = array_values(array_filter($asking, static fn(LineupClip $clip): bool => !isset($isPlaced[$clip->id])));
        foreach ($left as $done => $clip) {
            $this->look('fully', $clip, fn() => $this->fully($clip));
            $this->tell($clip, count($asking) + $done + 1, count($asking) + count($left));
        }
        $this->askForRecordings();

        return array_values(array_filter($this->compared, static fn(?SoundMatch $match): bool => $match?->isUsable() === true));
    }

    /** @param  callable(): void  $work  compares; what it found before, in a run that was killed, stands */
    private function look(string $how, LineupClip $clip, callable $work): void
    {
        $known = $this->journal?->of("$how $clip->id");
        if ($known !== null) {
            $this->compared = $known['compared'] + $this->compared;
            $this->pairs[$clip->id] = $known['pairs'];

            return;
        }
        $this->changed = [];
        $work();
        $this->journal?->keep("$how $clip->id", $this->pairs[$clip->id] ?? [], array_intersect_key($this->compared, $this->changed));
    }

    private function tell(LineupClip $clip, int $done, int $total): void
    {
        if ($this->progress !== null) {
            ($this->progress)($clip->id, $done, $total, $this->best($clip));
        }
    }

    /** A recording that nobody asked for may have run with a clip that a person has placed, which asks for nothing. */
    private function askForRecordings(): void
    {
        $isAsked = [];
        foreach ($this->compared as $match) {
            if ($match?->isUsable() === true) {
                $isAsked[$match->a] = $isAsked[$match->b] = true;
            }
        }
        $hasPlaced = array_filter($this->heard, static fn(LineupClip $clip): bool => $clip->lockedTicks !== null) !== [];
        foreach ($hasPlaced ? $this->heard : [] as $clip) {
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
                    $this->heard[$clip->id] = $clip;
                    $this->tracks[$clip->id] = $track;
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
        $first = array_values($this->heard)[0];

        return $clip->device !== $first->device;
    }

    /** What the clip was found along so far, recordings first. */
    private function best(LineupClip $clip): ?SoundMatch
    {
        $own = array_values(
            array_filter(array_map(fn(string $pair): ?SoundMatch => $this->compared[$pair], $this->pairs[$clip->id] ?? [])),
        );
        usort(
            $own,
            fn(SoundMatch $x, SoundMatch $y): int => [$y->isSure(), $this->heard[$y->a]->isSound, $y->height] <=> [
                $x->isSure(),
                $this->heard[$x->a]->isSound,
                $x->height,
            ],
        );

        return $own[0] ?? null;
    }

    private function byLandmarks(LineupClip $clip): void
    {
        $recorders = $cameras = [];
        foreach ($this->landmarks->like($this->numbers[$clip->id], $this->ofDevice[$clip->device]) as $number => $places) {
            $other = $this->heard[$this->ids[$number]];
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
            $isSure = $this->compare($clip, array_slice($rivals, 0, self::TRIED), false) || $isSure;
        }

        return $isSure;
    }

    /** Along every overlap: first with the recordings, then with other cameras. */
    private function fully(LineupClip $clip): void
    {
        $recordings = array_filter($this->heard, static fn(LineupClip $other): bool => $other->isSound && $other->device !== $clip->device);
        if (!$this->lookThrough($clip, $recordings)) {
            $cameras = array_filter(
                $this->heard,
                static fn(LineupClip $other): bool => !$other->isSound && $other->device !== $clip->device,
            );
            uasort(
                $cameras,
                static fn(LineupClip $x, LineupClip $y): int => self::apart($clip, $x) <=> self::apart($clip, $y) ?:
                $y->durationTicks <=> $x->durationTicks,
            );
            $this->lookThrough($clip, array_slice($cameras, 0, self::CAMERAS));
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
        foreach ($others as $other) {
            foreach ($this->matcher->places($other->id, $this->tracks[$other->id], $clip->id, $this->tracks[$clip->id]) as $place) {
                $places[] = ['other' => $other->id, 'lag' => $place['lag'], 'votes' => $place['score']];
            }
        }
        usort($places, static fn(array $x, array $y): int => $y['votes'] <=> $x['votes']);
        $byDevice = [];
        foreach (array_slice($places, 0, self::TRIED_FULLY) as $place) {
            $byDevice[$this->heard[$place['other']]->device][] = $place;
        }
        // What is clear is found without the long windows; what is not is worth them.
        foreach ([false, true] as $closely) {
            $isSure = false;
            foreach ($byDevice as $own) {
                $isSure = $this->compare($clip, $own, $closely, true) || $isSure;
            }
            if ($isSure) {
                return true;
            }
        }

        return false;
    }

    /**
     * Compares a clip with the files of one device at some places. Of places that claim the same part of the clip the
     * best one stands, and the next best is its rival, be it in another file.
     *
     * @param  list<array{other: string, lag: int, votes: float|int}>  $places
     * @param  bool  $again  also pairs that were compared at other places before
     * @return bool whether a sure place is among them
     */
    private function compare(LineupClip $clip, array $places, bool $closely, bool $again = false): bool
    {
        $lags = [];
        foreach ($places as $place) {
            $lags[$place['other']][] = $place['lag'];
        }
        $found = [];
        foreach ($lags as $other => $own) {
            $pair = $this->pair($clip->id, (string) $other);
            if (!$again && array_key_exists($pair, $this->compared)) {
                continue;
            }
            $match = $this->matcher->among((string) $other, $this->tracks[$other], $clip->id, $this->tracks[$clip->id], $own, $closely);
            $this->pairs[$clip->id][] = $pair;
            $before = $this->compared[$pair] ?? null;
            $this->compared[$pair] =
                $before === null || ($match !== null && $match->height > $before->height) ? $match?->remembering($before) : $before;
            $this->changed[$pair] = true;
            if ($this->compared[$pair] !== null) {
                $found[$pair] = $this->compared[$pair];
            }
        }
        uasort($found, static fn(SoundMatch $x, SoundMatch $y): int => $y->height <=> $x->height);
        $kept = [];
        foreach ($found as $pair => $match) {
            foreach ($kept as $best => $stronger) {
                if ($this->claimTheSame($clip, $match, $stronger)) {
                    $kept[$best] = $this->compared[$best] = $stronger->against($match);
                    $this->compared[$pair] = null;

                    continue 2;
                }
            }
            $kept[$pair] = $match;
        }

        return array_filter(array_keys($kept), fn(string $pair): bool => $this->compared[$pair]?->isSure() === true) !== [];
    }

    /** Whether two recordings both claim to have run during the same part of a clip. */
    private function claimTheSame(LineupClip $clip, SoundMatch $x, SoundMatch $y): bool
    {
        $from = max(-$x->offsetTicks, -$y->offsetTicks, 0);
        $to = min(
            $this->heard[$x->a]->durationTicks - $x->offsetTicks,
            $this->heard[$y->a]->durationTicks - $y->offsetTicks,
            $clip->durationTicks,
        );
        $shorter = min($this->heard[$x->a]->durationTicks, $this->heard[$y->a]->durationTicks, $clip->durationTicks);

        return $to - $from > intdiv($shorter, 4);
    }

    private function pair(string $x, string $y): string
    {
        return strcmp($x, $y) < 0 ? "$x\n$y" : "$y\n$x";
    }
}
