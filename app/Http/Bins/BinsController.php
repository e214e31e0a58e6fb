<?php

declare(strict_types=1);

namespace App\Http\Bins;

use App\Domain\Bins\BinRows;
use App\Domain\Bins\BinTree;
use App\Domain\Bins\EditBins;
use App\Http\Bins\Answers\BinMadeAnswer;
use App\Http\Bins\Answers\BinPageAnswer;
use App\Http\Bins\Answers\BinTreeAnswer;
use App\Http\Bins\Answers\MovedAnswer;
use App\Http\Bins\Requests\BinItemsRequest;
use App\Http\Bins\Requests\BinPageRequest;
use App\Http\Bins\Requests\BinRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Bin;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The tree of bins and what lies in them. */
final class BinsController extends Controller
{
    private const PAGE = 200;

    public function index(Production $production, BinTree $tree): JsonResponse
    {
        return new JsonResponse(BinTreeAnswer::of($tree->of($production)));
    }

    public function items(BinPageRequest $request, Production $production, string $key, BinRows $rows): JsonResponse
    {
        $page = $rows->page($production, $key, $request->integer('from'), $request->integer('limit', self::PAGE));

        return new JsonResponse(BinPageAnswer::of($page ?? throw Problem::missing('That bin', 'Choose another in the tree.')));
    }

    public function store(BinRequest $request, Production $production, EditBins $edit): JsonResponse
    {
        $parent =
            $request->validated('parent') === null
                ? null
                : $production->bins()->where('ulid', $request->validated('parent'))->firstOrFail();
        $bin = $edit->make($production, self::who($request), trim($request->validated('name')), $parent);

        return new JsonResponse(new BinMadeAnswer($bin->ulid), 201);
    }

    public function update(BinRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        return new JsonResponse(
            new BinMadeAnswer($edit->rename($bin, $production, self::who($request), trim($request->validated('name')))->ulid),
        );
    }

    public function destroy(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $edit->remove($bin, $production, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function put(BinItemsRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $from = $request->validated('from') === null ? null : $production->bins()->where('ulid', $request->validated('from'))->first();

        return new JsonResponse(new MovedAnswer($edit->move($production, self::who($request), $request->validated('refs'), $bin, $from)));
    }

    public function takeOut(BinItemsRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $edit->takeOut($production, self::who($request), $request->validated('refs'), $bin);

        return new JsonResponse(new DoneAnswer());
    }
}
