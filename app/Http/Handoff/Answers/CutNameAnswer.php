<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A cut or reel by its name. */
final readonly class CutNameAnswer
{
    /** @param  'reel'|'string_out'|'cut'|'angle_cut'|'received'  $kind */
    public function __construct(public string $ulid, public string $name, public string $kind) {}
}
