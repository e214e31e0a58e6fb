<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Health\Health;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Shell\Answers\HealthAnswer;
use App\Http\Shell\Answers\HealthStateAnswer;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** For whoever watches the machine: 200 when all is up, 503 when not. What exactly is told to the machine itself only. */
final class HealthController extends Controller
{
    public function show(Request $request, Health $health): JsonResponse
    {
        $found = $health->look();

        return new JsonResponse(
            in_array($request->ip(), ['127.0.0.1', '::1'], true)
                ? Answers::make(HealthAnswer::class, $found)
                : new HealthStateAnswer($found['ok']),
            $found['ok'] ? 200 : 503,
            ['Cache-Control' => 'no-store'],
        );
    }
}
