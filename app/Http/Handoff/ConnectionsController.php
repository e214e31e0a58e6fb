<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Handoff\ReadTokens;
use App\Domain\Handoff\WebHooks;
use App\Domain\Words\Languages;
use App\Http\Controller;
use App\Http\Handoff\Answers\ApiTokenAnswer;
use App\Http\Handoff\Answers\ConnectionsAnswer;
use App\Http\Handoff\Answers\ShownSecretAnswer;
use App\Http\Handoff\Answers\WebHookAnswer;
use App\Http\Handoff\Requests\TokenRequest;
use App\Http\Handoff\Requests\WebHookRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\ApiToken;
use App\Models\Production;
use App\Models\WebHook;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Programs of others: addresses that are told, and tokens that read. */
final class ConnectionsController extends Controller
{
    public function index(Production $production): JsonResponse
    {
        return new JsonResponse(
            new ConnectionsAnswer(
                $production
                    ->webHooks()
                    ->get()
                    ->map(
                        static fn(WebHook $one): WebHookAnswer => new WebHookAnswer(
                            $one->ulid,
                            $one->url,
                            $one->events,
                            $one->told_at?->toIso8601String(),
                            $one->trouble,
                        ),
                    )
                    ->all(),
                $production
                    ->apiTokens()
                    ->whereNull('revoked_at')
                    ->get()
                    ->map(
                        static fn(ApiToken $one): ApiTokenAnswer => new ApiTokenAnswer(
                            $one->ulid,
                            $one->name,
                            $one->created_at?->toIso8601String(),
                            $one->used_at?->toIso8601String(),
                        ),
                    )
                    ->all(),
                $production->words_service['url'] ?? null,
                array_keys(Languages::all()),
            ),
        );
    }

    public function addHook(WebHookRequest $request, Production $production): JsonResponse
    {
        $secret = WebHooks::add($production, self::who($request), $request->validated('url'), $request->validated('events'));

        return new JsonResponse(new ShownSecretAnswer($secret), 201);
    }

    public function removeHook(Request $request, Production $production, WebHook $webHook): JsonResponse
    {
        WebHooks::remove($webHook, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function addToken(TokenRequest $request, Production $production): JsonResponse
    {
        [, $secret] = ReadTokens::make($production, self::who($request), trim($request->validated('name')));

        return new JsonResponse(new ShownSecretAnswer($secret), 201);
    }

    public function revokeToken(Request $request, Production $production, ApiToken $apiToken): JsonResponse
    {
        ReadTokens::revoke($apiToken, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }
}
