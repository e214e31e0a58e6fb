<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

/** A reel or cut that shows a clip. */
final readonly class ClipUseAnswer
{
    /** @param  'reel'|'string_out'|'cut'|'angle_cut'|'received'  $kind */
    public function __construct(public string $sequence, public string $kind, public string $name, public int $times) {}
}
