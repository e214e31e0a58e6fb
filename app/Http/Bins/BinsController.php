<?php

declare(strict_types=1);

namespace App\Http\Bins;

use App\Domain\Bins\BinKey;
use App\Domain\Bins\BinKind;
use App\Domain\Bins\BinQuery;
use App\Domain\Bins\BinRows;
use App\Domain\Bins\BinTree;
use App\Domain\Bins\EditBins;
use App\Domain\Bins\RuleSubjects;
use App\Domain\Footage\Library;
use App\Http\Bins\Answers\BinCountsAnswer;
use App\Http\Bins\Answers\BinMadeAnswer;
use App\Http\Bins\Answers\BinPageAnswer;
use App\Http\Bins\Answers\BinRefsAnswer;
use App\Http\Bins\Answers\BinTreeAnswer;
use App\Http\Bins\Answers\MovedAnswer;
use App\Http\Bins\Requests\BinArrangementRequest;
use App\Http\Bins\Requests\BinGroupsRequest;
use App\Http\Bins\Requests\BinItemsRequest;
use App\Http\Bins\Requests\BinPageRequest;
use App\Http\Bins\Requests\BinRequest;
use App\Http\Bins\Requests\ChangeBinRequest;
use App\Http\Bins\Requests\PlaceBinRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Bin;
use App\Models\Preference;
use App\Models\Production;
use App\Support\Problem;
use Cartella\Core\Rules\Rule;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The tree of bins and what lies in them. */
final class BinsController extends Controller
{
    public const PAGE = 200;

    public function index(Request $request, Production $production, BinTree $tree): JsonResponse
    {
        $views = Preference::query()
            ->where('user_id', self::who($request)->id)
            ->where('production_id', $production->id)
            ->where('name', 'like', 'bin:%')
            ->get();

        return new JsonResponse(BinTreeAnswer::of($tree->of($production), $views));
    }

    public function counts(Production $production, BinTree $tree): JsonResponse
    {
        return new JsonResponse(new BinCountsAnswer($tree->counts($production)));
    }

    public function items(BinPageRequest $request, Production $production, string $key, BinRows $rows): JsonResponse
    {
        $bin = BinKey::parse($key);
        $subjects = $bin?->kind === BinKind::Own ? RuleSubjects::of($production) : [];
        $query = ($bin === null ? null : BinQuery::of($production, $bin, $request->arrangement(), $subjects)) ?? throw self::noBin();
        $page = $request->boolean('sum')
            ? $query->count() + ['from' => 0, 'rows' => []]
            : $rows->of($production, $query, $request->integer('from'), $request->integer('limit', self::PAGE));
        $sentence = $query->rule === null ? null : Rule::kept($query->rule, $subjects)->sentence($subjects);

        return new JsonResponse(BinPageAnswer::of($page, $query->rule, $sentence));
    }

    public function refs(BinPageRequest $request, Production $production, string $key): JsonResponse
    {
        $bin = BinKey::parse($key);
        $query = $bin === null ? null : BinQuery::of($production, $bin, $request->arrangement());

        return new JsonResponse(new BinRefsAnswer(($query ?? throw self::noBin())->refs(EditBins::MOST)));
    }

    public function arrange(BinArrangementRequest $request, Production $production, string $key): JsonResponse
    {
        Preference::query()->updateOrCreate(
            [
                'user_id' => self::who($request)->id,
                'production_id' => $production->id,
                'name' => 'bin:' . (BinKey::parse($key) ?? throw self::noBin()),
            ],
            ['value' => $request->validated()],
        );

        return new JsonResponse(new DoneAnswer());
    }

    public function groups(BinGroupsRequest $request, Production $production, EditBins $edit): JsonResponse
    {
        $edit->groups($production, self::who($request), $request->validated('groups'));

        return new JsonResponse(new DoneAnswer());
    }

    public function store(BinRequest $request, Production $production, EditBins $edit): JsonResponse
    {
        $input = $request->validated();
        $bin = $edit->make(
            $production,
            self::who($request),
            trim($input['name']),
            self::bin($production, $input['parent'] ?? null),
            $input['rule'] ?? null,
        );

        return new JsonResponse(new BinMadeAnswer($bin->ulid), 201);
    }

    public function update(ChangeBinRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $input = $request->validated();
        $who = self::who($request);
        if (isset($input['name'])) {
            $edit->rename($bin, $production, $who, trim($input['name']));
        }
        if (array_key_exists('colour', $input)) {
            $edit->colour($bin, $production, $who, $input['colour']);
        }
        if (isset($input['rule'])) {
            $edit->setRule($bin, $production, $who, $input['rule'], $input['was'] ?? null);
        }

        return new JsonResponse(new BinMadeAnswer($bin->ulid));
    }

    public function place(PlaceBinRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $input = $request->validated();
        $edit->place(
            $bin,
            $production,
            self::who($request),
            self::bin($production, $input['parent']),
            self::bin($production, $input['before'] ?? null),
        );

        return new JsonResponse(new DoneAnswer());
    }

    public function freeze(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        return new JsonResponse(new BinMadeAnswer($edit->freeze($bin, $production, self::who($request))->ulid), 201);
    }

    public function destroy(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $edit->remove($bin, $production, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function put(BinItemsRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $from = $request->validated('from') === null ? null : $production->bins()->where('ulid', $request->validated('from'))->first();

        $refs = Library::into($production, self::who($request), $request->validated('refs'));

        return new JsonResponse(new MovedAnswer($edit->move($production, self::who($request), $refs, $bin, $from)));
    }

    public function takeOut(BinItemsRequest $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $edit->takeOut($production, self::who($request), $request->validated('refs'), $bin);

        return new JsonResponse(new DoneAnswer());
    }

    private static function bin(Production $production, ?string $ulid): ?Bin
    {
        return $ulid === null ? null : $production->bins()->where('ulid', $ulid)->firstOrFail();
    }

    private static function noBin(): Problem
    {
        return Problem::missing('That bin', 'Choose another in the tree.');
    }
}
