<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Footage\ClipMedia;
use App\Domain\Lineup\CheckPoints;
use App\Domain\Lineup\Drift;
use App\Domain\Lineup\MovePlacement;
use App\Domain\Lineup\PairSound;
use App\Domain\Lineup\Windows;
use App\Domain\Log\MarkWild;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Lineup\Answers\CheckPairAnswer;
use App\Http\Lineup\Answers\ClipPointsAnswer;
use App\Http\Lineup\Answers\LockedAnswer;
use App\Http\Lineup\Answers\PlaceMadeAnswer;
use App\Http\Lineup\Requests\ByHandRequest;
use App\Http\Lineup\Requests\DriftRequest;
use App\Http\Lineup\Requests\LeaveOutRequest;
use App\Http\Lineup\Requests\LockRequest;
use App\Http\Lineup\Requests\NudgeRequest;
use App\Http\Lineup\Requests\PairRequest;
use App\Http\Lineup\Requests\SecondPlaceRequest;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Production;
use App\Support\Clock;
use App\Support\Problem;
use Cartella\Core\Time\Ticks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** One clip's place on the clock of the day. */
final class PlacementController extends Controller
{
    public function check(Production $production, Clip $clip, CheckPoints $points): JsonResponse
    {
        $place = $clip->placement;
        $other = Clip::query()
            ->with(['placement', 'device'])
            ->where('shoot_day_id', $clip->shoot_day_id)
            ->where('ulid', $place->evidence['against'] ?? '')
            ->first();
        if ($other?->placement?->start_ticks === null || $place?->start_ticks === null) {
            $other = $place?->start_ticks === null ? null : Windows::companion($clip);
        }
        $picture = $other === null ? null : Windows::companion($clip, 'picture');

        return new JsonResponse(
            Answers::make(CheckPairAnswer::class, [
                'own' => self::side($clip),
                'against' => $other === null ? null : self::side($other),
                'beside' => $picture === null ? null : self::side($picture),
                'moments' => $other === null ? [] : $points->shared($clip, $place, $other, $other->placement),
            ]),
        );
    }

    public function points(Production $production, Clip $clip, CheckPoints $points): JsonResponse
    {
        $found = $points->of($clip);

        return $found === null
            ? new JsonResponse(new ClipPointsAnswer([], [], [], true), 202)
            : new JsonResponse(Answers::make(ClipPointsAnswer::class, $found));
    }

    public function pair(PairRequest $request, Production $production, Clip $clip, PairSound $pair): Response
    {
        $input = $request->validated();
        $other = $production->clips()->where('ulid', $input['against'])->firstOrFail();
        $bytes = $pair->of(
            $clip,
            $other,
            (int) $input['from_ticks'],
            (int) $input['apart_ticks'],
            (int) round($input['seconds'] * PairSound::RATE),
        );

        return new Response($bytes, 200, ['Content-Type' => 'audio/wav', 'Cache-Control' => 'private, max-age=600']);
    }

    public function place(ByHandRequest $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validated();
        $against = Clip::query()
            ->with('placement')
            ->where('shoot_day_id', $clip->shoot_day_id)
            ->where('ulid', $input['against'])
            ->where('id', '!=', $clip->id)
            ->firstOrFail();
        if ($against->placement?->start_ticks === null) {
            throw Problem::refused('lineup.stray', $against->name . ' has no place yet.', 'Choose a clip that lies on the clock.');
        }
        // What a frame shows happened somewhere in it: its middle is never off by more than half of it.
        $rate = $clip->rate() ?? $production->rate();
        $own = isset($input['own_ticks'])
            ? (int) $input['own_ticks']
            : Ticks::ofFrames((int) $input['frame'], $rate) + intdiv(Ticks::ofFrames(1, $rate), 2);
        $known = ['against' => $against->ulid, 'own_ticks' => $own, 'against_ticks' => (int) $input['against_ticks']];
        $was = $input['was_ticks'] === null ? null : (int) $input['was_ticks'];
        if ($clip->placement?->start_ticks !== null && (int) $clip->placement->group === 0 && (int) $against->placement->group > 0) {
            // The day's clock stays; what hangs on nothing comes to it.
            if ($was !== $clip->placement->start_ticks) {
                throw Problem::editedMeanwhile($clip->title(), [
                    ['field' => 'start_ticks', 'yours' => $was, 'theirs' => $clip->placement->start_ticks],
                ]);
            }
            $move->place(
                $against,
                self::who($request),
                $clip->placement->start_ticks + $own - (int) $input['against_ticks'],
                $against->placement->start_ticks,
                ['against' => $clip->ulid, 'own_ticks' => (int) $input['against_ticks'], 'against_ticks' => $own],
            );

            return new JsonResponse(new PlaceMadeAnswer($clip->placement->start_ticks));
        }
        $placement = $move->place(
            $clip,
            self::who($request),
            $against->placement->start_ticks + (int) $input['against_ticks'] - $own,
            $was,
            $known,
            (int) $against->placement->group,
        );

        return new JsonResponse(new PlaceMadeAnswer($placement->start_ticks));
    }

    public function second(SecondPlaceRequest $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            new PlaceMadeAnswer(
                $move->second($clip, self::who($request), $input['was_ticks'] === null ? null : (int) $input['was_ticks'])->start_ticks,
            ),
        );
    }

    public function leaveOut(LeaveOutRequest $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validated();
        $move->leaveOut($clip, self::who($request), (bool) $input['out']);

        return new JsonResponse(new DoneAnswer());
    }

    public function wild(Request $request, Production $production, Clip $clip, MarkWild $wild): JsonResponse
    {
        if (!$clip->isSound()) {
            throw Problem::refused('wild.picture', $clip->name . ' is no sound recording.', 'Only a recording without picture is wild.');
        }
        $wild($clip, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function drift(DriftRequest $request, Production $production, Clip $clip, Drift $drift): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            new ChangedAnswer($drift->apply($clip, self::who($request), (bool) $input['applied'], (bool) $input['device'])),
        );
    }

    /** @return array<string, mixed> */
    private static function side(Clip $clip): array
    {
        return [
            'clip' => $clip->ulid,
            'name' => $clip->name,
            'device' => $clip->device?->letter,
            'kind' => $clip->kind,
            'start_ticks' => $clip->placement?->start_ticks,
            'drift_ppm' => $clip->placement?->drift_ppm,
            'duration_ticks' => $clip->duration_ticks,
            'rate' => Clock::rate($rate = $clip->rate() ?? $clip->production->rate()),
            'media_version' => ClipMedia::version($clip),
            'look' => Look::told($clip),
            'has_sound' => ($clip->channels ?? []) !== [],
            'frames' => $clip->frames ?? intdiv((int) $clip->duration_ticks, Ticks::ofFrames(1, $rate)),
        ];
    }

    public function nudge(NudgeRequest $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validated();
        $by = (int) $input['by'];
        $rate = $production->rate();
        $ticks = match ($input['unit']) {
            'frame' => Ticks::ofFrames($by, $rate),
            'sample' => Ticks::ofSamples($by, 48_000),
            default => $by,
        };
        $placement = $move->nudge($clip, self::who($request), $ticks, isset($input['was_ticks']) ? (int) $input['was_ticks'] : null);

        return new JsonResponse(new PlaceMadeAnswer($placement->start_ticks));
    }

    public function lock(LockRequest $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validated();
        $placement = $move->lock($clip, self::who($request), (bool) $input['locked']);

        return new JsonResponse(new LockedAnswer($placement->locked_at !== null));
    }
}
