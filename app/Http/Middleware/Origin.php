<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Support\Live;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Remembers which open page asks, so that what it changes is not told to it as somebody else's change. */
final class Origin
{
    public function handle(Request $request, \Closure $next): Response
    {
        $page = (string) $request->headers->get('X-Page');
        Live::$origin = preg_match('/\A[A-Za-z0-9-]{8,40}\z/', $page) === 1 ? $page : null;
        try {
            return $next($request);
        } finally {
            Live::$origin = null;
        }
    }
}
