<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Day\Glance;
use App\Domain\Handoff\HandoffList;
use App\Domain\Points\OpenPoints;
use App\Domain\Productions\MakeProduction;
use App\Domain\Productions\Presence;
use App\Domain\Sequences\SequencesUndo;
use App\Domain\Undo\UndoChange;
use App\Domain\Undo\Undone;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Sequences\Answers\SequenceStepAnswer;
use App\Http\Shell\Answers\GlanceAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Http\Shell\Answers\ProductionAnswer;
use App\Http\Shell\Answers\TabsAnswer;
use App\Http\Shell\Answers\UndoneAnswer;
use App\Http\Shell\Requests\MakeProductionRequest;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Time\FrameRate;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;

/** What the frame around the stages needs: the production, its days, search, running tasks, undo. */
final class ProductionController extends Controller
{
    public function show(Request $request, Production $production): JsonResponse
    {
        return new JsonResponse(ProductionAnswer::of($production, $request->user()));
    }

    /** What the page of productions shows of it. */
    public function glance(Production $production, Glance $glance): JsonResponse
    {
        return new JsonResponse(
            Answers::make(GlanceAnswer::class, [
                'rate' => $production->rate()->label(),
                'days' => $glance->days($production),
                'days_count' => $production->days()->count(),
                'waiting' => $glance->waiting($production),
                'here' => array_map(
                    static fn(User $user): array => ['name' => $user->name, 'initials' => $user->initials()],
                    Presence::here($production),
                ),
                'may_add_day' => Gate::allows('work', $production),
            ]),
        );
    }

    public function store(MakeProductionRequest $request, MakeProduction $make): JsonResponse
    {
        $input = $request->validated();
        $production = $make(
            self::who($request),
            trim($input['name']),
            FrameRate::parse($input['rate']),
            $input['date'],
            SlateStyle::from($input['style'] ?? 'letter'),
        );

        return new JsonResponse(new MadeAnswer($production->ulid), 201);
    }

    /** Counts for the tabs of the spine. */
    public function tabs(Production $production, ShootDay $day, OpenPoints $points): JsonResponse
    {
        $cards = $day->cards()->whereNull('away_at')->with('copies')->get();
        $stages = array_count_values(array_map(static fn($point): string => $point->place['stage'], $points->of($day)));
        $placed = $day
            ->placements()
            ->whereNotNull('start_ticks')
            ->whereHas('clip', static fn($clip) => $clip->whereNull('away_at'))
            ->count();

        return new JsonResponse(
            new TabsAnswer(
                open: array_sum($stages),
                by_stage: $stages,
                cards: ['safe' => $cards->filter(static fn(Card $card): bool => $card->isSafe())->count(), 'all' => $cards->count()],
                takes: $day->takes()->count(),
                placed: $placed,
                to_place: Clip::shotOn($day->id)
                    ->whereDoesntHave('placement', static fn($place) => $place->whereNotNull('left_out_at'))
                    ->count(),
                handoff: HandoffList::newestWords($production),
            ),
        );
    }

    public function undo(Request $request, Production $production, UndoChange $undo, SequencesUndo $cuts): JsonResponse
    {
        return self::undone($undo->undo($production, self::who($request)), $cuts);
    }

    public function redo(Request $request, Production $production, UndoChange $undo, SequencesUndo $cuts): JsonResponse
    {
        return self::undone($undo->redo($production, self::who($request)), $cuts);
    }

    private static function undone(?Undone $done, SequencesUndo $cuts): JsonResponse
    {
        $step = $done === null ? null : $cuts->led($done->change);

        return new JsonResponse(
            new UndoneAnswer(
                $done?->change->label,
                $done->stayed ?? [],
                $done->count ?? 0,
                $done->topics ?? [],
                $step?->sequence->ulid,
                $step === null ? null : SequenceStepAnswer::of($step),
            ),
        );
    }
}
