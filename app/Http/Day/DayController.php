<?php

declare(strict_types=1);

namespace App\Http\Day;

use App\Domain\Day\DaySheet;
use App\Domain\Day\FixPoint;
use App\Domain\Log\DailyLog;
use App\Http\Controller;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class DayController extends Controller
{
    public function show(Production $production, ShootDay $day, DaySheet $sheet): JsonResponse
    {
        return new JsonResponse($sheet->of($day));
    }

    public function log(Production $production, ShootDay $day, string $format, DailyLog $log): Response
    {
        return self::document($format === 'pdf' ? $log->pdf($day) : $log->csv($day), "$production->name day $day->number daily log.$format", $format === 'pdf' ? 'pdf' : 'csv');
    }

    public function fix(Request $request, Production $production, ShootDay $day, FixPoint $fix, DaySheet $sheet): JsonResponse
    {
        $input = $request->validate(['key' => ['required', 'string', 'max:120'], 'fix' => ['required', 'string', 'max:60']]);
        $fix($day, self::who($request), $input['key'], $input['fix']);

        return new JsonResponse($sheet->of($day));
    }
}
