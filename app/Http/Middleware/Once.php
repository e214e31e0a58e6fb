<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Domain\Log\KeptEntries;
use App\Http\Shell\Answers\DoneAnswer;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * An entry that a page sends again, because it never heard what came of it, counts once: by then it may have been taken
 * back, or a colleague's may stand over it.
 */
final class Once
{
    /** @param  \Closure(Request): Response  $next */
    public function handle(Request $request, \Closure $next): Response
    {
        $entry = $request->input('entry');
        $user = $request->user()?->getAuthIdentifier();
        if (!is_string($entry) || preg_match('/\A[\w.-]{8,64}\z/', $entry) !== 1 || $user === null) {
            return $next($request);
        }
        if (KeptEntries::has((int) $user, $entry)) {
            return new JsonResponse(new DoneAnswer());
        }
        $response = $next($request);
        if ($response->isSuccessful()) {
            KeptEntries::keep((int) $user, $entry);
        }

        return $response;
    }
}
