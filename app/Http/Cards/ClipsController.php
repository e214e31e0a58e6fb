<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\AssignDevice;
use App\Domain\Lineup\StateClock;
use App\Domain\Tasks\StartTask;
use App\Http\Cards\Answers\ClockAnswer;
use App\Http\Cards\Requests\ClockRequest;
use App\Http\Cards\Requests\SayDeviceRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What is said of the clips of cards: their device, their clock, their media. */
final class ClipsController extends Controller
{
    public function clock(ClockRequest $request, Production $production, Clip $clip, StateClock $state): JsonResponse
    {
        $input = $request->validated();
        $correction = $state($clip, self::who($request), $input['frame'], $input['reads'], $input['for']);

        return new JsonResponse(new ClockAnswer($correction));
    }

    /** Which device recorded some clips, or that they are imports of a kind. */
    public function device(SayDeviceRequest $request, Production $production, AssignDevice $assign): JsonResponse
    {
        $input = $request->validated();
        $device = ($input['device'] ?? null) === null ? null : self::deviceOf($production, $input['device']);
        $clips = $production->clips()->whereIn('ulid', $input['clips'])->get();
        if ($clips->count() !== count(array_unique($input['clips']))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }

        return new JsonResponse(
            new ChangedAnswer($assign($production, self::who($request), $clips, $device, importKind: $input['import_kind'] ?? null)),
        );
    }

    /** Makes the proxy of one clip anew. */
    public function remake(Request $request, Production $production, Clip $clip, StartTask $start): JsonResponse
    {
        return new JsonResponse(
            TaskAnswer::of(
                $start($production, self::who($request), 'media', 'Proxy of ' . $clip->title(), ['clip' => $clip->id], "media.$clip->id"),
            ),
            202,
        );
    }
}
