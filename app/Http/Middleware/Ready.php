<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\User;
use App\Support\Problem;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Lets nobody work who first has to choose a password of their own, or set up the second factor that an admin requires. */
final class Ready
{
    public function handle(Request $request, \Closure $next): Response
    {
        $user = $request->user();
        $needs = $user instanceof User ? $user->needs() : null;
        if ($needs !== null) {
            throw Problem::forbidden(
                'account.needs',
                $needs === 'password' ? 'Choose a password of your own first.' : 'Set up a second factor first; an admin requires it.',
                'Load the page again; it shows what to do.',
                ['needs' => $needs],
            );
        }

        return $next($request);
    }
}
