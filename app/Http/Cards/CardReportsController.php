<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\CardReport;
use App\Domain\Reports\MakeReport;
use App\Http\Controller;
use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Camera and sound reports of a card or a day. */
final class CardReportsController extends Controller
{
    public function cardReport(
        Request $request,
        Production $production,
        Card $card,
        string $kind,
        string $format,
        CardReport $report,
        MakeReport $make,
    ): Response {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return $this->report($request, $production, $card->day, $card, $kind, $format, $report, $make);
    }

    public function dayReport(
        Request $request,
        Production $production,
        ShootDay $day,
        string $kind,
        string $format,
        CardReport $report,
        MakeReport $make,
    ): Response {
        return $this->report($request, $production, $day, null, $kind, $format, $report, $make);
    }

    /**
     * @param  'camera'|'sound'  $kind
     * @param  'pdf'|'csv'  $format
     */
    private function report(
        Request $request,
        Production $production,
        ShootDay $day,
        ?Card $card,
        string $kind,
        string $format,
        CardReport $report,
        MakeReport $make,
    ): Response {
        $name = CardReport::fileName($production, $day, $card, $kind, $format);

        return $format === 'csv'
            ? self::document($report->csv($day, $card, $kind), $name, 'csv')
            : self::made($make($day, self::who($request), $kind, $card), $name);
    }
}
