<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\TakeAway;
use App\Http\Cards\Answers\DependentsAnswer;
use App\Http\Cards\Requests\AwayClipsRequest;
use App\Http\Cards\Requests\AwayRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Models\Card;
use App\Models\Production;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Cards and clips that are taken out of the footage, and what depends on them. */
final class AwayController extends Controller
{
    public function ofCard(Production $production, Card $card): JsonResponse
    {
        return new JsonResponse(
            new DependentsAnswer(...TakeAway::dependents($card->clips()->whereNull('clips.away_at')->pluck('id')->all())),
        );
    }

    public function card(AwayRequest $request, Production $production, Card $card, TakeAway $away): JsonResponse
    {
        return new JsonResponse(new ChangedAnswer($away->card($production, self::who($request), $card, (int) $request->validated('seen'))));
    }

    public function back(Request $request, Production $production, Card $card, TakeAway $away): JsonResponse
    {
        return new JsonResponse(new ChangedAnswer($away->back($production, self::who($request), $card)));
    }

    public function ofClips(AwayClipsRequest $request, Production $production): JsonResponse
    {
        $clips = TakeAway::found($production, $request->validated('clips'));

        return new JsonResponse(new DependentsAnswer(...TakeAway::dependents($clips->modelKeys())));
    }

    public function clips(AwayClipsRequest $request, Production $production, TakeAway $away): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(new ChangedAnswer($away->clips($production, self::who($request), $input['clips'], (int) $input['seen'])));
    }
}
