<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\Shell\Answers\DoneAnswer;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
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
        $known = DB::table('kept_entries')->where('user_id', $user)->where('entry', $entry);
        if ($known->exists()) {
            return new JsonResponse(new DoneAnswer());
        }
        $response = $next($request);
        if ($response->isSuccessful()) {
            DB::table('kept_entries')->insertOrIgnore(['user_id' => $user, 'entry' => $entry]);
        }

        return $response;
    }
}
