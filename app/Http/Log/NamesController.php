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
    /** Names of a preview that are sent; the others are counted. */
    private const SHOWN = 400;

    public function previewNames(NamingRequest $request, Production $production, GiveNames $give): JsonResponse
    {
        $names = $give->preview($production, ...$request->naming($production));
        $bad = array_values(array_filter($names, static fn(array $one): bool => $one['problems'] !== []));

        return new JsonResponse(
            Answers::make(NamesAnswer::class, [
                'names' => array_slice($request->boolean('only_bad') ? $bad : $names, 0, self::SHOWN),
                'total' => count($names),
                'changes' => count(array_filter($names, static fn(array $one): bool => $one['name'] !== $one['was'])),
                'bad' => count($bad),
            ]),
        );
    }

    public function giveNames(NamingRequest $request, Production $production, GiveNames $give): JsonResponse
    {
        return new JsonResponse(new ChangedAnswer($give($production, self::who($request), ...$request->naming($production))));
    }
}
