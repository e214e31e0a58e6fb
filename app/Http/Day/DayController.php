<?php

declare(strict_types=1);

namespace App\Http\Day;

use App\Domain\Day\DaySheet;
use App\Domain\Log\DailyLog;
use App\Domain\Points\FixPoint;
use App\Domain\Reports\MakeReport;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Day\Answers\DaySheetAnswer;
use App\Http\Day\Requests\FixRequest;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class DayController extends Controller
{
    public function show(Production $production, ShootDay $day, DaySheet $sheet): JsonResponse
    {
        return new JsonResponse(Answers::make(DaySheetAnswer::class, $sheet->of($day)));
    }

    public function log(Request $request, Production $production, ShootDay $day, string $format, DailyLog $log, MakeReport $make): Response
    {
        $name = "$production->name day $day->number daily log.$format";

        return $format === 'csv'
            ? self::document($log->csv($day), $name, 'csv')
            : self::made($make($day, self::who($request), 'daily'), $name);
    }

    public function fix(FixRequest $request, Production $production, ShootDay $day, FixPoint $fix, DaySheet $sheet): JsonResponse
    {
        $input = $request->validated();
        $fix($day, self::who($request), $input['key'], $input['fix']);

        return new JsonResponse(Answers::make(DaySheetAnswer::class, $sheet->of($day)));
    }
}
