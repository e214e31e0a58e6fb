<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Screening\BuildReel;
use App\Domain\Screening\ReelList;
use App\Domain\Screening\ReelShow;
use App\Domain\Screening\ReelTakes;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\Recipes;
use App\Domain\Sequences\SequenceStore;
use App\Http\Controller;
use App\Http\Screening\Answers\RebuiltAnswer;
use App\Http\Screening\Answers\ReelAnswer;
use App\Http\Screening\Answers\ReelLookAnswer;
use App\Http\Screening\Answers\ReelsAnswer;
use App\Http\Screening\Answers\ReelSummaryAnswer;
use App\Http\Screening\Answers\SceneTextAnswer;
use App\Http\Screening\Requests\ArrangeReelRequest;
use App\Http\Screening\Requests\BuildReelRequest;
use App\Http\Screening\Requests\NameReelRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\Scene;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Review reels: built, arranged, shown. */
final class ScreeningController extends Controller
{
    public function index(Production $production, ShootDay $day, ReelList $reels): JsonResponse
    {
        return new JsonResponse(new ReelsAnswer(array_map(ReelSummaryAnswer::make(...), $reels->of($day))));
    }

    /** What a recipe would make, before it is made. */
    public function look(BuildReelRequest $request, Production $production, ShootDay $day, ReelTakes $takes): JsonResponse
    {
        $looked = $takes->looked($production, $request->recipe($day));

        return new JsonResponse(new ReelLookAnswer($looked['takes'], $looked['ticks'], $looked['slates']));
    }

    public function store(BuildReelRequest $request, Production $production, ShootDay $day, BuildReel $build, ReelList $reels): JsonResponse
    {
        $recipe = $request->recipe($day);
        $name = trim((string) $request->validated('name')) ?: $reels->nameFor($day, $recipe);

        return new JsonResponse(new MadeAnswer($build($day, self::who($request), $name, $recipe)->ulid), 201);
    }

    public function show(
        Request $request,
        Production $production,
        StoredSequence $reel,
        SequenceStore $store,
        ReelShow $show,
        BuildReel $build,
    ): JsonResponse {
        $cut = $store->read($reel);

        return new JsonResponse(
            ReelAnswer::of($reel, Playlist::of($reel, $cut), $show, $build->leftOut($reel, $cut), self::who($request)->id),
        );
    }

    public function again(Production $production, StoredSequence $reel, Recipes $recipes): JsonResponse
    {
        return new JsonResponse(new RebuiltAnswer($recipes->again($reel)));
    }

    public function arrange(ArrangeReelRequest $request, Production $production, StoredSequence $reel, BuildReel $build): JsonResponse
    {
        $build->arrange($reel, self::who($request), $request->validated('was'), $request->validated('now'));

        return new JsonResponse(new DoneAnswer());
    }

    public function name(NameReelRequest $request, Production $production, StoredSequence $reel, SequenceStore $store): JsonResponse
    {
        $store->rename($reel, self::who($request), trim($request->validated('name')));

        return new JsonResponse(new DoneAnswer());
    }

    public function destroy(Request $request, Production $production, StoredSequence $reel, SequenceStore $store): JsonResponse
    {
        $store->remove($reel, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    /** A scene of the script, beside the picture. */
    public function scene(Production $production, string $name): JsonResponse
    {
        $scene = Scene::query()->where('production_id', $production->id)->where('name', $name)->first();

        return new JsonResponse(SceneTextAnswer::of($name, $scene));
    }
}
