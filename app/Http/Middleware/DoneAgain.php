<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Support\WroteAtOnce;
use Illuminate\Database\Events\TransactionCommitted;
use Illuminate\Http\Request;
use Illuminate\Routing\Router;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Log;
use Symfony\Component\HttpFoundation\Response;

/**
 * A change that the database undid because another one wrote the same at once is done again from its beginning, with all that it is
 * about read anew; who asked for it hears nothing of that.
 */
final class DoneAgain
{
    private const TIMES = 4;

    /** Milliseconds before it is done again, more each time, so that the other one is through. */
    private const WAIT = 30;

    public function __construct(private readonly Router $router) {}

    /** @param  \Closure(Request): Response  $next */
    public function handle(Request $request, \Closure $next): Response
    {
        if ($request->isMethodSafe()) {
            return $next($request);
        }
        $isKept = false;
        Event::listen(TransactionCommitted::class, static function (TransactionCommitted $what) use (&$isKept): void {
            $isKept = $isKept || $what->connection->transactionLevel() === 0;
        });
        for ($time = 1; ; $time++) {
            $response = $next($request);
            // The router has made an answer of what was thrown.
            $trouble = $response->exception ?? null;
            $route = $request->route();
            if ($route === null || !WroteAtOnce::isBehind($trouble)) {
                return $response;
            }
            // Where a part of it is kept already, the whole of it would be done twice.
            if ($time === self::TIMES || $isKept) {
                Log::error('Others wrote the same at once.', ['times' => $time, 'in_part' => $isKept, 'exception' => $trouble]);

                return $response;
            }
            Log::notice('Another one wrote the same at once; it is done again.', ['cause' => $trouble?->getMessage()]);
            usleep(1000 * random_int(self::WAIT, 2 * self::WAIT) * $time);
            // Models that the first time changed in memory say that there is nothing left to write.
            $route->bind($request);
            $this->router->substituteBindings($route);
            $this->router->substituteImplicitBindings($route);
        }
    }
}
