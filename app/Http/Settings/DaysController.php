<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Productions\EditDays;
use App\Http\Controller;
use App\Http\Settings\Answers\DayAnswer;
use App\Http\Settings\Requests\AddDayRequest;
use App\Http\Settings\Requests\ChangeDayRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Shoot days of a production. */
final class DaysController extends Controller
{
    public function addDay(AddDayRequest $request, Production $production, EditDays $edit): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            DayAnswer::of($edit->add($production, self::who($request), $input['date'], $input['unit'] ?? 'Main unit')),
            201,
        );
    }

    public function changeDay(ChangeDayRequest $request, Production $production, ShootDay $day, EditDays $edit): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(DayAnswer::of($edit->change($production, self::who($request), $day, $input)));
    }

    public function removeDay(Request $request, Production $production, ShootDay $day, EditDays $edit): JsonResponse
    {
        $edit->remove($production, self::who($request), $day);

        return new JsonResponse(new DoneAnswer());
    }
}
