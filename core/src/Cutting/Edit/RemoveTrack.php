<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;

/** Takes the last track away. Others keep their numbers, by which steps name them; so one among them can only be turned off. */
final readonly class RemoveTrack implements Operation
{
    public function __construct(public int $track) {}

    public function apply(Sequence $sequence): Sequence
    {
        $track = Rules::track($sequence, $this->track);
        if ($this->track !== count($sequence->tracks) - 1) {
            throw Refused::because('Only the last track can be taken away; turn this one off.');
        }
        if ($track->items !== []) {
            throw Refused::because('Something lies on that track.');
        }

        return $sequence->withTracks(array_slice($sequence->tracks, 0, -1));
    }
}
