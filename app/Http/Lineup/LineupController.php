<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Footage\ClipMedia;
use App\Domain\Lineup\CheckPoints;
use App\Domain\Lineup\CutIntoTakes;
use App\Domain\Lineup\Drift;
use App\Domain\Lineup\LineupPage;
use App\Domain\Lineup\MovePlacement;
use App\Domain\Lineup\OrderLanes;
use App\Domain\Lineup\PairSound;
use App\Domain\Lineup\Runs;
use App\Domain\Lineup\Scope;
use App\Domain\Lineup\SoundOfTake;
use App\Domain\Lineup\SplitIntoTakes;
use App\Domain\Lineup\StartLineup;
use App\Domain\Lineup\StateClock;
use App\Domain\Lineup\Windows;
use App\Domain\Log\MarkWild;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Lineup\Answers\CheckPairAnswer;
use App\Http\Lineup\Answers\ClipPointsAnswer;
use App\Http\Lineup\Answers\CutPlanAnswer;
use App\Http\Lineup\Answers\HeadAnswer;
use App\Http\Lineup\Answers\LineupAnswer;
use App\Http\Lineup\Answers\LockedAnswer;
use App\Http\Lineup\Answers\PlaceMadeAnswer;
use App\Http\Lineup\Answers\RunRowsAnswer;
use App\Http\Lineup\Answers\RunsAnswer;
use App\Http\Lineup\Answers\SplitPlanAnswer;
use App\Http\Lineup\Answers\SplitTakesAnswer;
use App\Http\Lineup\Answers\WentBackAnswer;
use App\Http\Lineup\Requests\ApplyClockRequest;
use App\Http\Lineup\Requests\ByHandRequest;
use App\Http\Lineup\Requests\CompareRequest;
use App\Http\Lineup\Requests\CutRequest;
use App\Http\Lineup\Requests\DriftRequest;
use App\Http\Lineup\Requests\HeadRequest;
use App\Http\Lineup\Requests\LanesRequest;
use App\Http\Lineup\Requests\LeaveOutRequest;
use App\Http\Lineup\Requests\LockRequest;
use App\Http\Lineup\Requests\NudgeRequest;
use App\Http\Lineup\Requests\PairRequest;
use App\Http\Lineup\Requests\SecondPlaceRequest;
use App\Http\Lineup\Requests\SoundRequest;
use App\Http\Lineup\Requests\SplitPlanRequest;
use App\Http\Lineup\Requests\SplitRequest;
use App\Http\Lineup\Requests\StartRequest;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Clip;
use App\Models\LineupRun;
use App\Models\Look;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Clock;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Time\Ticks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class LineupController extends Controller
{
    public function show(Production $production, ShootDay $day, LineupPage $page): JsonResponse
    {
        $task = StartLineup::running($day);

        return new JsonResponse(
            Answers::make(LineupAnswer::class, $page->of($day) + ['task' => $task === null ? null : TaskAnswer::of($task)]),
        );
    }

    public function start(StartRequest $request, Production $production, ShootDay $day, StartLineup $start): JsonResponse
    {
        $input = $request->validated();
        $scope = Scope::of($day, $input['scope'] ?? 'day', (string) ($input['key'] ?? ''), array_values($input['clips'] ?? []));
        $task = $start(
            $day,
            self::who($request),
            $scope,
            array_values($input['ways'] ?? ['sound', 'timecode']),
            (bool) ($input['cut'] ?? true),
            $input['anchor'] ?? null,
        );

        return new JsonResponse(TaskAnswer::of($task), 202);
    }

    public function runs(Production $production, ShootDay $day, Runs $runs): JsonResponse
    {
        return new JsonResponse(Answers::make(RunsAnswer::class, ['runs' => $runs->of($day)]));
    }

    /** With another run, or with what stands now. */
    public function compare(CompareRequest $request, Production $production, LineupRun $lineupRun, Runs $runs): JsonResponse
    {
        $input = $request->validated();
        $other =
            ($input['with'] ?? null) === null
                ? null
                : LineupRun::query()->where('shoot_day_id', $lineupRun->shoot_day_id)->where('ulid', $input['with'])->firstOrFail();

        return new JsonResponse(Answers::make(RunRowsAnswer::class, ['rows' => $runs->compare($lineupRun, $other)]));
    }

    public function goBack(Request $request, Production $production, LineupRun $lineupRun, Runs $runs): JsonResponse
    {
        if (StartLineup::running($lineupRun->day) !== null) {
            throw Problem::refused('lineup.busy', 'This day is being lined up.', 'Wait until it is done, or stop it.');
        }

        return new JsonResponse(Answers::make(WentBackAnswer::class, $runs->goBack($lineupRun, self::who($request))));
    }

    public function lanes(LanesRequest $request, Production $production, OrderLanes $order): JsonResponse
    {
        $letters = $request->validated()['letters'];
        $order($production, self::who($request), $letters);

        return new JsonResponse(new DoneAnswer());
    }

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
        $placement = $move->place(
            $clip,
            self::who($request),
            $against->placement->start_ticks + (int) $input['against_ticks'] - $own,
            $input['was_ticks'] === null ? null : (int) $input['was_ticks'],
            [
                'against' => $against->ulid,
                'own_ticks' => $own,
                'against_ticks' => (int) $input['against_ticks'],
            ],
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

    public function cutPlan(Production $production, ShootDay $day, CutIntoTakes $cut): JsonResponse
    {
        return new JsonResponse(
            Answers::make(CutPlanAnswer::class, [
                'rows' => $cut->plan($day),
                'patterns' => $production->namePatterns(),
                'pattern' => $production->name_patterns[0] ?? null,
            ]),
        );
    }

    public function cut(CutRequest $request, Production $production, ShootDay $day, CutIntoTakes $cut): JsonResponse
    {
        $input = $request->validated();
        $count = $cut($day, self::who($request), array_values($input['chosen']), $input['pattern'] ?? null);
        Live::tell($production->id, Topic::Takes);
        Live::tell($production->id, Topic::Lineup);

        return new JsonResponse(new ChangedAnswer($count));
    }

    /** Where one long recording would be split into takes. */
    public function splitPlan(SplitPlanRequest $request, Production $production, Clip $clip, SplitIntoTakes $split): JsonResponse
    {
        $input = $request->validated();
        $angle = $input['by'] === 'angle' ? $production->devices()->where('letter', $input['device'])->firstOrFail() : null;

        return new JsonResponse(
            Answers::make(SplitPlanAnswer::class, ['spans' => $split->plan($clip, self::who($request), $input['by'], $angle)]),
        );
    }

    public function split(SplitRequest $request, Production $production, Clip $clip, SplitIntoTakes $split): JsonResponse
    {
        $input = $request->validated();
        $takes = $split($clip, self::who($request), array_values($input['spans']), $input['was']);

        return new JsonResponse(new SplitTakesAnswer(array_map(static fn(Take $take): string => $take->ulid, $takes)));
    }

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

    public function applyClock(ApplyClockRequest $request, Production $production, ShootDay $day, StateClock $state): JsonResponse
    {
        $input = $request->validated();
        $state->apply($day, $production->devices()->where('letter', $input['device'])->firstOrFail(), self::who($request), $input['for']);

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
