<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

/** The tracks of new cuts, and what a track can be for. */
final readonly class TrackPlanAnswer
{
    /**
     * @param  list<array{kind: 'picture'|'sound', name: string, role: string}>  $tracks
     * @param  bool  $is_own  whether somebody of the production said so
     * @param  array<string, string>  $roles  how each is called
     */
    public function __construct(public array $tracks, public bool $is_own, public array $roles) {}
}
