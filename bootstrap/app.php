<?php

declare(strict_types=1);

use App\Http\ErrorAnswer;
use App\Http\Middleware\DoneAgain;
use App\Http\Middleware\Origin;
use App\Http\Middleware\Ready;
use App\Http\Middleware\SaidAgain;
use App\Http\Middleware\StartSession;
use App\Support\Problem;
use App\Support\WroteAtOnce;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__ . '/../routes/web.php',
        api: __DIR__ . '/../routes/api.php',
        apiPrefix: 'api/v1',
        commands: __DIR__ . '/../routes/console.php',
    )
    ->withCommands([__DIR__ . '/../app/Console'])
    ->withMiddleware(static function (Middleware $middleware): void {
        $middleware->remove(HandleCors::class); // same origin only; its package is not in the registry
        $middleware->alias(['ready' => Ready::class]);
        $middleware->append(Origin::class);
        $middleware->web(
            append: [SaidAgain::class, DoneAgain::class],
            replace: [\Illuminate\Session\Middleware\StartSession::class => StartSession::class],
        );
        // The desk's own web server hands over who asks and whether over https. Another one in front is believed only when named.
        $middleware->trustProxies(at: array_values(array_filter(explode(',', (string) env('CARTELLA_TRUSTED_PROXIES', '')))));
        $middleware->redirectGuestsTo(static fn(): ?string => null);
    })
    ->withExceptions(static function (Exceptions $exceptions): void {
        $exceptions->dontReport([Problem::class]); // a refusal is an answer, not a fault
        // It is done again; where that does not help either, DoneAgain says so.
        $exceptions->dontReportWhen(static fn(Throwable $trouble): bool => request()->route() !== null && WroteAtOnce::isBehind($trouble));
        $exceptions->shouldRenderJsonWhen(static fn(Request $request): bool => $request->is('api/*'));
        $exceptions->render(static fn(Throwable $trouble, Request $request) => $request->is('api/*') ? ErrorAnswer::of($trouble) : null);
    })
    ->create();
