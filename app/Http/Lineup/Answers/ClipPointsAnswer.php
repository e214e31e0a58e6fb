<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** Where something is heard or seen in a clip. Ticks and frames. */
final readonly class ClipPointsAnswer
{
    /**
     * @param  list<array{ticks: int, strength: float}>  $claps
     * @param  list<int>  $onsets
     * @param  list<array{frame: int, strength: float}>  $flashes
     */
    public function __construct(public array $claps, public array $onsets, public array $flashes, public ?bool $pending = null) {}
}
