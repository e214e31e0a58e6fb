<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use Illuminate\Foundation\Events\Dispatchable;

/** A clip's proxy, pictures and guide sound were made; whoever finds something in them listens. */
final class MediaMade
{
    use Dispatchable;

    public function __construct(public readonly Clip $clip) {}
}
