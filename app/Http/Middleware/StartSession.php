<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Illuminate\Session\Middleware\StartSession as Start;

/**
 * Begins a session without noting the address that was asked last: the interface knows where it is, and the note would be
 * all that changes.
 */
final class StartSession extends Start
{
    protected function storeCurrentUrl(Request $request, $session): void {}
}
