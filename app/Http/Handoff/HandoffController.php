<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Bins\BinKey;
use App\Domain\Bins\BinTree;
use App\Domain\Handoff\AnswerHandoff;
use App\Domain\Handoff\HandoffList;
use App\Domain\Handoff\MakeHandoff;
use App\Http\Controller;
use App\Models\Handoff;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class HandoffController extends Controller
{
    public function index(Production $production, HandoffList $list, BinTree $tree): JsonResponse
    {
        return new JsonResponse(['handoffs' => $list->of($production), 'bins' => $tree->of($production)]);
    }

    public function store(Request $request, Production $production, MakeHandoff $make): JsonResponse
    {
        $input = $request->validate([
            'days' => ['present', 'array'],
            'days.*' => ['string', 'size:26'],
            'bins' => ['present', 'array'],
            'bins.*' => ['string', 'max:' . BinKey::LONGEST],
        ]);
        $days = $production->days()->whereIn('ulid', $input['days'])->orderBy('number')->get();
        if ($days->count() !== count(array_unique($input['days']))) {
            throw Problem::missing('One of those days', 'Load the page again.');
        }

        return new JsonResponse(['ulid' => $make($production, self::who($request), $days, $input['bins'])->ulid], 202);
    }

    public function answer(Request $request, Production $production, Handoff $handoff, AnswerHandoff $answer): JsonResponse
    {
        $input = $request->validate(['query' => ['present', 'nullable', 'string', 'max:1000']]);

        return new JsonResponse(['state' => $answer($handoff, self::who($request), $input['query'])->state]);
    }
}
