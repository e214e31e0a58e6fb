<?php

declare(strict_types=1);

namespace App\Http\Bins;

use App\Domain\Bins\BinTree;
use App\Domain\Bins\ClipSheet;
use App\Domain\Bins\EditBins;
use App\Http\Controller;
use App\Models\Bin;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Collection;

final class BinsController extends Controller
{
    private const PAGE = 200;

    public function index(Production $production, BinTree $tree): JsonResponse
    {
        return new JsonResponse($tree->of($production));
    }

    public function clips(Request $request, Production $production, string $key, BinTree $tree): JsonResponse
    {
        $input = $request->validate(['from' => ['sometimes', 'integer', 'min:0'], 'limit' => ['sometimes', 'integer', 'between:1,500']]);

        return new JsonResponse(
            $tree->clips($production, $key, (int) ($input['from'] ?? 0), (int) ($input['limit'] ?? self::PAGE)) ??
                throw Problem::missing('That bin', 'Choose another in the tree.'),
        );
    }

    public function store(Request $request, Production $production, EditBins $edit): JsonResponse
    {
        $input = $this->name($request, ['parent' => ['sometimes', 'nullable', 'string', 'size:26']]);
        $parent = isset($input['parent']) ? $production->bins()->where('ulid', $input['parent'])->firstOrFail() : null;

        return new JsonResponse(['key' => $edit->make($production, self::who($request), trim($input['name']), $parent)->ulid], 201);
    }

    public function update(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        return new JsonResponse([
            'key' => $edit->rename($bin, $production, self::who($request), trim($this->name($request)['name']))->ulid,
        ]);
    }

    public function destroy(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $edit->remove($bin, $production, self::who($request));

        return new JsonResponse([], 200);
    }

    public function put(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $input = $request->validate([
            'clips' => ['required', 'array', 'between:1,1000'],
            'clips.*' => ['string', 'size:26'],
            'from' => ['sometimes', 'nullable', 'string', 'max:60'],
        ]);
        $from = isset($input['from']) ? $production->bins()->where('ulid', $input['from'])->first() : null;

        return new JsonResponse([
            'moved' => $edit->move($production, self::who($request), $this->chosen($production, $input['clips']), $bin, $from),
        ]);
    }

    public function takeOut(Request $request, Production $production, Bin $bin, EditBins $edit): JsonResponse
    {
        $input = $request->validate(['clips' => ['required', 'array', 'between:1,1000'], 'clips.*' => ['string', 'size:26']]);
        $edit->takeOut($production, self::who($request), $this->chosen($production, $input['clips']), $bin);

        return new JsonResponse([]);
    }

    public function clip(Request $request, Production $production, Clip $clip, ClipSheet $sheet): JsonResponse
    {
        return new JsonResponse($sheet->of($clip, self::who($request)));
    }

    /** Marks are one person's own and need no role. */
    public function marks(Request $request, Production $production, Clip $clip): JsonResponse
    {
        $limit = (int) $clip->duration_ticks;
        $input = $request->validate([
            'in_ticks' => ['present', 'nullable', 'integer', "between:0,$limit"],
            'out_ticks' => ['present', 'nullable', 'integer', "between:0,$limit"],
        ]);
        ClipMark::query()->updateOrCreate(['clip_id' => $clip->id, 'user_id' => self::who($request)->id], $input);

        return new JsonResponse($input);
    }

    public function subclip(Request $request, Production $production, Clip $clip, EditBins $edit): JsonResponse
    {
        $input = $request->validate(
            ['name' => ['required', 'string', 'max:160'], 'in_ticks' => ['required', 'integer'], 'out_ticks' => ['required', 'integer']],
            ['name.required' => 'Give the subclip a name.'],
        );
        $subclip = $edit->keepSubclip(
            $clip,
            self::who($request),
            trim($input['name']),
            (int) $input['in_ticks'],
            (int) $input['out_ticks'],
        );

        return new JsonResponse(['ulid' => $subclip->ulid], 201);
    }

    /**
     * @param  array<string, list<string>>  $more
     * @return array<string, mixed>
     */
    private function name(Request $request, array $more = []): array
    {
        return $request->validate(['name' => ['required', 'string', 'max:120', 'regex:/\S/', 'not_regex:/:/']] + $more, [
            'name.required' => 'Give the bin a name.',
            'name.*' => 'A bin\'s name has at most 120 letters and no colon.',
        ]);
    }

    /**
     * @param  list<string>  $ulids
     * @return Collection<int, Clip>
     */
    private function chosen(Production $production, array $ulids): Collection
    {
        $clips = $production->clips()->whereIn('ulid', $ulids)->get();

        return $clips->count() === count(array_unique($ulids))
            ? $clips
            : throw Problem::missing('One of those clips', 'Load the page again.');
    }
}
