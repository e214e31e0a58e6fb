<?php

declare(strict_types=1);

namespace App\Http\Words;

use App\Domain\Words\SceneReads;
use App\Domain\Words\WordSearch;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Words\Answers\LineSumsAnswer;
use App\Http\Words\Answers\SceneReadsAnswer;
use App\Http\Words\Answers\SpokenFoundAnswer;
use App\Models\Production;
use App\Models\Scene;
use App\Models\ShootDay;
use App\Models\Take;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What is said in all of a production: looked for, and laid beside the script. */
final class SpokenController extends Controller
{
    /** Characters of what is looked for. */
    private const LONGEST = 200;

    public function search(Request $request, Production $production, WordSearch $search): JsonResponse
    {
        $asked = static function (string $key) use ($request): ?string {
            $value = $request->query($key);

            return is_string($value) && trim($value) !== '' && mb_check_encoding($value, 'UTF-8')
                ? mb_substr(trim($value), 0, self::LONGEST)
                : null;
        };
        $day =
            $asked('day') === null
                ? null
                : ShootDay::query()->where('production_id', $production->id)->where('ulid', $asked('day'))->firstOrFail()->id;

        return new JsonResponse(
            Answers::make(
                SpokenFoundAnswer::class,
                $search->of($production, $asked('q') ?? '', [
                    'speaker' => $asked('speaker'),
                    'scene' => $asked('scene'),
                    'day' => $day,
                    'circled' => $asked('circled') === '1',
                ]),
            ),
        );
    }

    public function script(Request $request, Production $production, SceneReads $reads): JsonResponse
    {
        $scenes = Scene::query()
            ->where('production_id', $production->id)
            ->whereNotNull('script_order')
            ->orderBy('script_order')
            ->get(['name', 'heading']);
        $take = $request->query('take');
        $wanted = is_string($take)
            ? Take::query()->where('production_id', $production->id)->where('ulid', $take)->value('scene')
            : $request->query('scene');
        $scene = $scenes->firstWhere('name', is_string($wanted) ? $wanted : '') ?? $scenes->first();
        if ($scene === null) {
            return new JsonResponse(new SceneReadsAnswer('', '', [], [], [], 0, []));
        }

        return new JsonResponse(
            Answers::make(SceneReadsAnswer::class, [
                'scene' => $scene->name,
                'heading' => $scene->heading,
                'scenes' => $scenes->pluck('name')->all(),
                ...$reads->of($production, $scene->name),
            ]),
        );
    }

    /** Of a day's scenes, for the heads of the slate sheet. */
    public function sums(Production $production, ShootDay $day, SceneReads $reads): JsonResponse
    {
        return new JsonResponse(new LineSumsAnswer($reads->sums($day->setRelation('production', $production))));
    }
}
