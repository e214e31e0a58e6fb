<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\SoundOfTake;
use App\Http\Controller;
use App\Http\Lineup\Answers\HeadAnswer;
use App\Http\Lineup\Answers\HeadsAnswer;
use App\Http\Lineup\Requests\HeadRequest;
use App\Http\Lineup\Requests\HeadsRequest;
use App\Http\Lineup\Requests\SoundRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use Illuminate\Http\JsonResponse;

/** What is heard under a take, and where its clips begin. */
final class TakeSoundController extends Controller
{
    public function sound(SoundRequest $request, Production $production, Take $take, SoundOfTake $sound): JsonResponse
    {
        $input = $request->validated();
        $sound->set(
            $take,
            self::who($request),
            $input['channels'] === null ? null : array_values($input['channels']),
            $input['was'] === null ? null : array_values($input['was']),
        );

        return new JsonResponse(new DoneAnswer());
    }

    public function heads(HeadsRequest $request, Production $production, ShootDay $day, SoundOfTake $sound): JsonResponse
    {
        $input = $request->validated();
        $count = $sound->trimHeads(
            $day,
            self::who($request),
            isset($input['clips']) ? array_values($input['clips']) : null,
            (bool) $input['whole'],
        );

        return new JsonResponse(new HeadsAnswer($count['changed'], $count['none']));
    }

    public function head(HeadRequest $request, Production $production, Clip $clip, SoundOfTake $sound): JsonResponse
    {
        $input = $request->validated();
        $was = $input['was'] === null ? null : (int) $input['was'];
        if ($input['slate'] ?? false) {
            return new JsonResponse(new HeadAnswer($sound->beginAtSlate($clip, self::who($request), $was)));
        }
        $frames = isset($input['frames']) ? (int) $input['frames'] : null;
        $sound->trimHead($clip, self::who($request), $frames, $was);

        return new JsonResponse(new HeadAnswer($frames));
    }
}
