<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Sound\GuideTrack;

/**
 * The clips of a line-up that can be heard, with their sound.
 *
 * @internal
 */
final class Heard
{
    /** @var array<string, LineupClip> by id, recorders first */
    public array $clips = [];

    /** @var array<string, GuideTrack> */
    public array $tracks = [];

    public function add(LineupClip $clip, GuideTrack $track): void
    {
        $this->clips[$clip->id] = $clip;
        $this->tracks[$clip->id] = $track;
    }
}
