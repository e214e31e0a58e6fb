<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\StoredSequence;
use App\Models\User;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Time\FrameRate;

/** An empty cut with the tracks of the production's plan. */
final readonly class MakeCut
{
    public function __construct(private SequenceStore $store) {}

    /** @param  FrameRate|null  $rate  that of its first picture; null for the production's */
    public function __invoke(
        Production $production,
        User $user,
        string $name,
        SequenceKind $kind = SequenceKind::Cut,
        ?FrameRate $rate = null,
    ): StoredSequence {
        $sequence = new Sequence($name, $rate ?? $production->rate(), 0, TrackPlan::tracks($production));

        return $this->store->create($production, $user, $kind, $sequence);
    }
}
