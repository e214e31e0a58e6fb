<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Log\BringScript;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\ScriptReportAnswer;
use App\Models\Production;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The script of the production. */
final class ScriptController extends Controller
{
    public function script(Request $request, Production $production, BringScript $bring): JsonResponse
    {
        $sent = self::sent($request);
        $text = (string) file_get_contents($sent->getPathname(), length: 4_000_000);

        return new JsonResponse(
            Answers::make(
                ScriptReportAnswer::class,
                $request->boolean('apply')
                    ? $bring($production, self::who($request), $text, $sent->getClientOriginalName())
                    : $bring->preview($production, $text),
            ),
        );
    }
}
