<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Handoff\HandoffList;
use App\Domain\Handoff\PackageContents;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Handoff\Answers\HandoffAnswer;
use App\Http\Handoff\Answers\PackageFileAnswer;
use App\Http\Handoff\Answers\ReadDayAnswer;
use App\Http\Handoff\Answers\ReadFilesAnswer;
use App\Http\Handoff\Answers\ReadHandoffsAnswer;
use App\Http\Handoff\Answers\ReadProductionAnswer;
use App\Http\Handoff\Answers\ReadTakeAnswer;
use App\Http\Handoff\Answers\ReadTakesAnswer;
use App\Http\Handoff\Requests\ReadTakesRequest;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\TakePart;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What programs of others read of a production. */
final class ReadController extends Controller
{
    private const PAGE = 500;

    public function production(Request $request): JsonResponse
    {
        $production = self::of($request);

        return new JsonResponse(
            new ReadProductionAnswer(
                $production->ulid,
                $production->name,
                $production->rate()->label(),
                $production
                    ->days()
                    ->orderBy('number')
                    ->get()
                    ->map(
                        static fn(ShootDay $day): ReadDayAnswer => new ReadDayAnswer($day->ulid, $day->number, $day->date->format('Y-m-d')),
                    )
                    ->all(),
            ),
        );
    }

    public function takes(ReadTakesRequest $request, string $day): JsonResponse
    {
        $shot = self::of($request)->days()->where('ulid', $day)->first() ?? throw Problem::missing('That day', 'Ask for the days first.');
        $from = $request->integer('from');
        $takes = Take::query()
            ->where('shoot_day_id', $shot->id)
            ->with(['parts.clip'])
            ->orderBy('sort_key')
            ->orderBy('id');

        return new JsonResponse(
            new ReadTakesAnswer(
                $takes->count(),
                $from,
                $takes
                    ->offset($from)
                    ->limit(self::PAGE)
                    ->get()
                    ->map(
                        static fn(Take $take): ReadTakeAnswer => new ReadTakeAnswer(
                            $take->ulid,
                            $take->label(),
                            $take->scene,
                            $take->setup,
                            $take->take,
                            $take->part,
                            $take->status,
                            $take->description,
                            $take->notes,
                            $take->marks(),
                            $take->parts->map(static fn(TakePart $part): string => $part->clip->title())->values()->all(),
                        ),
                    )
                    ->all(),
            ),
        );
    }

    public function handoffs(Request $request, HandoffList $list): JsonResponse
    {
        return new JsonResponse(new ReadHandoffsAnswer(Answers::list(HandoffAnswer::class, $list->of(self::of($request)))));
    }

    public function files(Request $request, string $handoff): JsonResponse
    {
        $one =
            self::of($request)->handoffs()->where('ulid', $handoff)->first() ??
            throw Problem::missing('That hand-off', 'Ask for the hand-offs first.');

        return new JsonResponse(new ReadFilesAnswer(Answers::list(PackageFileAnswer::class, PackageContents::of($one))));
    }

    private static function of(Request $request): Production
    {
        $production = $request->attributes->get('production');

        return $production instanceof Production ? $production : throw new \LogicException('Nobody showed a token.');
    }
}
