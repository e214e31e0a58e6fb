<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Footage\GiveNames;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\NamesAnswer;
use App\Http\Log\Requests\NamingRequest;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Models\Production;
use Illuminate\Http\JsonResponse;

/** Names that patterns give. */
final class NamesController extends Controller
{
    public function previewNames(NamingRequest $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(Answers::make(NamesAnswer::class, ['names' => $give->preview($production, ...$request->naming())]));
    }

    public function giveNames(NamingRequest $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(new ChangedAnswer($give($production, self::who($request), ...$request->naming())));
    }
}
