<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;

/** A further track, empty, behind the last. */
final readonly class AddTrack implements Operation
{
    /** More than anybody reads on a screen, and few enough that each edit looks at all of them. */
    public const MOST = 64;

    public function __construct(public TrackKind $kind, public string $name, public string $role = '') {}

    public function apply(Sequence $sequence): Sequence
    {
        if (count($sequence->tracks) >= self::MOST) {
            throw Refused::because('A cut has at most ' . self::MOST . ' tracks.');
        }

        return $sequence->withTracks([...$sequence->tracks, new Track($this->kind, Rules::name($this->name), [], $this->role)]);
    }
}
