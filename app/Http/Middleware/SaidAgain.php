<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\User;
use App\Support\KeptAnswers;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * What a page asks for again because it never heard the answer is done once: the answer of the first time is given again. Named by the
 * page with the header `Idempotency-Key` (IETF draft-ietf-httpapi-idempotency-key-header), told as said again by `X-Again`; answers are
 * written down when they are on their way. Entries of the log, which wait longer than their page is open, have {@see Once}.
 */
final class SaidAgain
{
    public function handle(Request $request, \Closure $next): Response
    {
        $asked = $request->headers->has('X-Again') ? self::asked($request) : null;

        return ($asked === null ? null : KeptAnswers::find(...$asked)) ?? $next($request);
    }

    public function terminate(Request $request, Response $response): void
    {
        $asked = self::asked($request);
        // What the desk broke at was not done, and is tried again.
        if ($asked !== null && $response instanceof JsonResponse && $response->getStatusCode() < 500) {
            KeptAnswers::keep(...[...$asked, $response]);
        }
    }

    /** @return array{int, string}|null whose change and its name; null for what is no such request */
    private static function asked(Request $request): ?array
    {
        $name = (string) $request->headers->get('Idempotency-Key');
        $user = $request->user();

        return !$request->isMethodSafe() && $user instanceof User && preg_match('/\A[A-Za-z0-9-]{16,40}\z/', $name) === 1
            ? [$user->id, $name]
            : null;
    }
}
