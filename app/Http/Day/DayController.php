<?php

declare(strict_types=1);

namespace App\Http\Day;

use App\Domain\Day\DaySheet;
use App\Domain\Day\FixPoint;
use App\Http\Controller;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class DayController extends Controller
{
    public function show(Production $production, ShootDay $day, DaySheet $sheet): JsonResponse
    {
        return new JsonResponse($sheet->of($day));
    }

    public function fix(Request $request, Production $production, ShootDay $day, FixPoint $fix, DaySheet $sheet): JsonResponse
    {
        $input = $request->validate(['key' => ['required', 'string', 'max:120'], 'fix' => ['required', 'string', 'max:60']]);
        $fix($day, self::who($request), $input['key'], $input['fix']);

        return new JsonResponse($sheet->of($day));
    }
}
