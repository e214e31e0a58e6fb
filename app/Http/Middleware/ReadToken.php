<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Domain\Handoff\ReadTokens;
use App\Support\Problem;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Lets a program in that shows a token of a production, and to nothing but that production. */
final class ReadToken
{
    public function handle(Request $request, \Closure $next): Response
    {
        $production = ReadTokens::production((string) $request->bearerToken());
        if ($production === null) {
            throw Problem::unknownToken();
        }
        $request->attributes->set('production', $production);

        return $next($request);
    }
}
