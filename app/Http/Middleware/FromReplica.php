<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\Production;
use App\Support\Replica;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Answers that may be a second old are read from a server that follows the database's, where there is one. */
final class FromReplica
{
    /** @param  \Closure(Request): Response  $next */
    public function handle(Request $request, \Closure $next): Response
    {
        $production = $request->attributes->get('production');

        return Replica::read($production instanceof Production ? $production : null, static function (?Production $found) use (
            $request,
            $next,
        ): Response {
            $request->attributes->set('production', $found);

            return $next($request);
        });
    }
}
