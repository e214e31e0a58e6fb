<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\CartellaException;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Lineup\SoundMatcher;
use Cartella\Core\Sound\GuideTrack;

/**
 * Chooses which pairs of clips are compared closely, and collects the matches.
 *
 * Every clip is first screened against all recorder files, and refined against its best few; cameras are compared
 * with each other only for clips that no recorder file holds, and to close a triangle.
 *
 * @internal
 */
final class SoundPairs
{
    private const REFINED = 3;

    private readonly SoundMatcher $matcher;

    /** @var array<string, GuideTrack> */
    private array $tracks = [];

    /** @var array<string, string> reasons by clip */
    public array $silent = [];

    /** @param  (callable(string $id, int $done, int $total): void)|null  $progress called after each clip */
    public function __construct(private $progress = null)
    {
        $this->matcher = new SoundMatcher();
    }

    /**
     * @param  list<LineupClip>  $clips
     * @return list<SoundMatch> usable ones, best first
     */
    public function find(array $clips): array
    {
        $this->load($clips);
        $heard = array_values(array_filter($clips, fn (LineupClip $clip): bool => isset($this->tracks[$clip->id])));
        $sounds = array_values(array_filter($heard, static fn (LineupClip $clip): bool => $clip->isSound));
        $matches = [];
        $total = count($heard);
        foreach ($heard as $done => $clip) {
            if (! $clip->isSound || $sounds[0]->device !== $clip->device) {
                array_push($matches, ...$this->against($clip, $sounds));
            }
            if ($this->progress !== null) {
                ($this->progress)($clip->id, $done + 1, $total);
            }
        }
        $tied = [];
        foreach ($matches as $match) {
            if ($match->isSure()) {
                $tied[$match->a] = $tied[$match->b] = true;
            }
        }
        foreach ($heard as $clip) {
            if (! isset($tied[$clip->id]) && ! $clip->isSound) {
                $others = array_values(array_filter($heard, static fn (LineupClip $other): bool => ! $other->isSound));
                array_push($matches, ...$this->against($clip, $others));
            }
        }
        usort($matches, static fn (SoundMatch $x, SoundMatch $y): int => $y->confidence() <=> $x->confidence());

        return $matches;
    }

    /** @param  list<LineupClip>  $clips */
    private function load(array $clips): void
    {
        foreach ($clips as $clip) {
            if ($clip->sound === null) {
                $this->silent[$clip->id] = 'It has no sound.';

                continue;
            }
            try {
                $track = ($clip->sound)();
                if ($track->hasUsableSound()) {
                    $this->tracks[$clip->id] = $track;
                } else {
                    $this->silent[$clip->id] = $track->steps() < GuideTrack::STEP_RATE
                        ? 'Its sound is shorter than one second.'
                        : 'Nothing can be heard on it.';
                }
            } catch (CartellaException $trouble) {
                $this->silent[$clip->id] = 'Its sound could not be read. '.$trouble->getMessage();
            }
        }
    }

    /**
     * @param  list<LineupClip>  $others
     * @return list<SoundMatch>
     */
    private function against(LineupClip $clip, array $others): array
    {
        $likeness = [];
        foreach ($others as $index => $other) {
            if ($other->device !== $clip->device) {
                $likeness[$index] = $this->matcher->likeness($other->id, $this->tracks[$other->id], $clip->id, $this->tracks[$clip->id]);
            }
        }
        arsort($likeness);
        $matches = [];
        foreach (array_slice(array_keys($likeness), 0, self::REFINED) as $index) {
            $other = $others[$index];
            $match = $this->matcher->match($other->id, $this->tracks[$other->id], $clip->id, $this->tracks[$clip->id]);
            if ($match !== null && $match->isUsable()) {
                $matches[] = $match;
                if ($match->isSure() && $match->height > 3 * SoundMatch::SURE_HEIGHT) {
                    break; // one clear place is enough; more would only cost time
                }
            }
        }

        return $matches;
    }
}
