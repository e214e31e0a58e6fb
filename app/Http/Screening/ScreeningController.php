<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Screening\AddNote;
use App\Domain\Screening\BuildReel;
use App\Domain\Screening\ReelPage;
use App\Domain\Screening\RemoveReel;
use App\Http\Controller;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Reel;
use App\Models\ShootDay;
use App\Models\Take;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class ScreeningController extends Controller
{
    public function index(Production $production, ShootDay $day): JsonResponse
    {
        return new JsonResponse([
            'reels' => $day
                ->reels()
                ->withCount('items')
                ->latest('id')
                ->get()
                ->map(
                    static fn(Reel $reel): array => [
                        'ulid' => $reel->ulid,
                        'name' => $reel->name,
                        'circled_only' => $reel->circled_only,
                        'items' => $reel->items_count,
                        'running_ticks' => $reel->runningTicks(),
                        'made_at' => $reel->created_at?->toIso8601String(),
                        'first_clip' => $reel->items()->with('clip')->first()?->clip->ulid,
                    ],
                )
                ->all(),
        ]);
    }

    public function store(Request $request, Production $production, ShootDay $day, BuildReel $build): JsonResponse
    {
        $input = $request->validate(['name' => ['sometimes', 'nullable', 'string', 'max:120'], 'circled_only' => ['required', 'boolean']]);
        $name = trim($input['name'] ?? '') ?: sprintf('Day %d, %s', $day->number, $input['circled_only'] ? 'circled' : 'all takes');

        return new JsonResponse(['ulid' => $build($day, self::who($request), $name, (bool) $input['circled_only'])->ulid], 201);
    }

    public function show(Production $production, Reel $reel, ReelPage $page): JsonResponse
    {
        return new JsonResponse($page->of($reel));
    }

    public function destroy(Request $request, Production $production, Reel $reel, RemoveReel $remove): JsonResponse
    {
        $remove($reel, self::who($request));

        return new JsonResponse([]);
    }

    public function note(Request $request, Production $production, Take $take, AddNote $add): JsonResponse
    {
        $input = $request->validate(
            [
                'text' => ['required', 'string', 'max:1000'],
                'at_ticks' => ['required', 'integer', 'min:0'],
                'clip' => ['sometimes', 'nullable', 'string', 'size:26'],
            ],
            ['text.required' => 'Write the note first.'],
        );
        $clip = isset($input['clip'])
            ? Clip::query()->where('production_id', $production->id)->where('ulid', $input['clip'])->firstOrFail()
            : null;

        return new JsonResponse(
            ['ulid' => $add($take, self::who($request), $clip, (int) $input['at_ticks'], trim($input['text']))->ulid],
            201,
        );
    }
}
