<?php

declare(strict_types=1);

namespace Cartella\Core\Cutting\Edit;

use Cartella\Core\Cutting\Sequence;

/** Names a track, says what it is for, locks it, or turns it off; null leaves that as it is. Its items stay as they are. */
final readonly class SetTrack implements Operation
{
    public function __construct(
        public int $track,
        public ?string $name = null,
        public ?string $role = null,
        public ?bool $isLocked = null,
        public ?bool $isOn = null,
    ) {}

    public function apply(Sequence $sequence): Sequence
    {
        // A locked one can be unlocked.
        $track = $sequence->tracks[$this->track] ?? throw Refused::because("There is no track $this->track.");
        $head = $track->toHead();
        $tracks = $sequence->tracks;
        $tracks[$this->track] = $track->headed([
            'name' => $this->name === null ? $head['name'] : Rules::name($this->name),
            'role' => $this->role ?? ($head['role'] ?? ''),
            'locked' => $this->isLocked ?? $head['locked'],
            'enabled' => $this->isOn ?? $head['enabled'],
            'kind' => $head['kind'],
        ]);

        return $sequence->withTracks(array_values($tracks));
    }
}
