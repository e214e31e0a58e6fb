<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A card that was taken away, with the clips that went with it. */
final readonly class AwayCardAnswer
{
    public function __construct(public string $ulid, public string $roll, public int $clips, public string $at) {}
}
