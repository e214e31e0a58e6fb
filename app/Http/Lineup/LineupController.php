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
use App\Http\Controller;
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
use Illuminate\Validation\Rule;

final class LineupController extends Controller
{
    private const WAYS = ['sound', 'timecode', 'clock', 'mark', 'in', 'out', 'start'];

    public function show(Production $production, ShootDay $day, LineupPage $page): JsonResponse
    {
        $task = StartLineup::running($day);

        return new JsonResponse($page->of($day) + ['task' => $task === null ? null : TaskAnswer::of($task)]);
    }

    public function start(Request $request, Production $production, ShootDay $day, StartLineup $start): JsonResponse
    {
        $input = $request->validate([
            'ways' => ['sometimes', 'array', 'between:1,7'],
            'ways.*' => [Rule::in(self::WAYS), 'distinct'],
            'cut' => ['sometimes', 'boolean'],
            'anchor' => ['sometimes', 'nullable', 'string', 'size:26'],
            'scope' => ['sometimes', Rule::in(['day', 'card', 'scene', 'clips'])],
            'key' => ['sometimes', 'nullable', 'string', 'max:60'],
            'clips' => ['sometimes', 'array', 'max:2000'],
            'clips.*' => ['string', 'size:26'],
        ]);
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
        return new JsonResponse(['runs' => $runs->of($day)]);
    }

    /** With another run, or with what stands now. */
    public function compare(Request $request, Production $production, LineupRun $lineupRun, Runs $runs): JsonResponse
    {
        $input = $request->validate(['with' => ['sometimes', 'nullable', 'string', 'size:26']]);
        $other =
            ($input['with'] ?? null) === null
                ? null
                : LineupRun::query()->where('shoot_day_id', $lineupRun->shoot_day_id)->where('ulid', $input['with'])->firstOrFail();

        return new JsonResponse(['rows' => $runs->compare($lineupRun, $other)]);
    }

    public function goBack(Request $request, Production $production, LineupRun $lineupRun, Runs $runs): JsonResponse
    {
        if (StartLineup::running($lineupRun->day) !== null) {
            throw Problem::refused('lineup.busy', 'This day is being lined up.', 'Wait until it is done, or stop it.');
        }

        return new JsonResponse($runs->goBack($lineupRun, self::who($request)));
    }

    public function lanes(Request $request, Production $production, OrderLanes $order): JsonResponse
    {
        $letters = $request->validate([
            'letters' => ['required', 'array', 'between:1,64'],
            'letters.*' => ['string', 'max:12', 'distinct'],
        ])['letters'];
        $order($production, self::who($request), $letters);

        return new JsonResponse([]);
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

        return new JsonResponse([
            'own' => self::side($clip),
            'against' => $other === null ? null : self::side($other),
            'beside' => $picture === null ? null : self::side($picture),
            'moments' => $other === null ? [] : $points->shared($clip, $place, $other, $other->placement),
        ]);
    }

    public function points(Production $production, Clip $clip, CheckPoints $points): JsonResponse
    {
        $found = $points->of($clip);

        return $found === null
            ? new JsonResponse(['pending' => true, 'claps' => [], 'onsets' => [], 'flashes' => []], 202)
            : new JsonResponse($found);
    }

    public function pair(Request $request, Production $production, Clip $clip, PairSound $pair): Response
    {
        $input = $request->validate([
            'against' => ['required', 'string', 'size:26'],
            'from_ticks' => ['required', 'integer'],
            'apart_ticks' => ['required', 'integer'],
            'seconds' => ['required', 'numeric', 'between:0.01,20'],
        ]);
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

    public function place(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $day = 2 * 86_400 * Ticks::PER_SECOND;
        $input = $request->validate([
            'against' => ['required', 'string', 'size:26'],
            'against_ticks' => ['required', 'integer', "between:0,$day"],
            'frame' => ['required_without:own_ticks', 'integer', 'min:0'],
            'own_ticks' => ['required_without:frame', 'integer', "between:0,$day"],
            'was_ticks' => ['present', 'nullable', 'integer'],
        ]);
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

        return new JsonResponse(['start_ticks' => $placement->start_ticks]);
    }

    public function second(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validate(['was_ticks' => ['present', 'nullable', 'integer']]);

        return new JsonResponse([
            'start_ticks' => $move->second($clip, self::who($request), $input['was_ticks'] === null ? null : (int) $input['was_ticks'])
                ->start_ticks,
        ]);
    }

    public function leaveOut(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validate(['out' => ['required', 'boolean']]);
        $move->leaveOut($clip, self::who($request), (bool) $input['out']);

        return new JsonResponse([]);
    }

    public function wild(Request $request, Production $production, Clip $clip, MarkWild $wild): JsonResponse
    {
        if (!$clip->isSound()) {
            throw Problem::refused('wild.picture', $clip->name . ' is no sound recording.', 'Only a recording without picture is wild.');
        }
        $wild($clip, self::who($request));

        return new JsonResponse([]);
    }

    public function cutPlan(Production $production, ShootDay $day, CutIntoTakes $cut): JsonResponse
    {
        return new JsonResponse([
            'rows' => $cut->plan($day),
            'patterns' => $production->namePatterns(),
            'pattern' => $production->name_patterns[0] ?? null,
        ]);
    }

    public function cut(Request $request, Production $production, ShootDay $day, CutIntoTakes $cut): JsonResponse
    {
        $input = $request->validate([
            'chosen' => ['required', 'array', 'max:4000'],
            'chosen.*' => ['string', 'regex:/\A[0-9A-Z]{26}:(take|false_start|wild|room_tone|mos)\z/'],
            'pattern' => ['sometimes', 'nullable', 'string', 'max:160'],
        ]);
        $count = $cut($day, self::who($request), array_values($input['chosen']), $input['pattern'] ?? null);
        Live::tell($production->id, Topic::Takes);
        Live::tell($production->id, Topic::Lineup);

        return new JsonResponse(['changed' => $count]);
    }

    /** Where one long recording would be split into takes. */
    public function splitPlan(Request $request, Production $production, Clip $clip, SplitIntoTakes $split): JsonResponse
    {
        $input = $request->validate([
            'by' => ['required', Rule::in(['windows', 'marks', 'angle'])],
            'device' => ['required_if:by,angle', 'string', 'max:12'],
        ]);
        $angle = $input['by'] === 'angle' ? $production->devices()->where('letter', $input['device'])->firstOrFail() : null;

        return new JsonResponse(['spans' => $split->plan($clip, self::who($request), $input['by'], $angle)]);
    }

    public function split(Request $request, Production $production, Clip $clip, SplitIntoTakes $split): JsonResponse
    {
        $input = $request->validate([
            'spans' => ['required', 'array', 'between:1,' . SplitIntoTakes::MOST],
            'spans.*.from' => ['required', 'integer', 'min:0'],
            'spans.*.to' => ['required', 'integer', 'min:1'],
            'spans.*.slate' => ['required', 'string', 'max:40'],
            'was' => ['present', 'nullable', 'string', 'max:80'],
        ]);
        $takes = $split($clip, self::who($request), array_values($input['spans']), $input['was']);

        return new JsonResponse(['takes' => array_map(static fn(Take $take): string => $take->ulid, $takes)]);
    }

    public function sound(Request $request, Production $production, Take $take, SoundOfTake $sound): JsonResponse
    {
        $rules = [];
        foreach (['channels', 'was'] as $list) {
            $rules += [
                $list => ['present', 'nullable', 'array', 'max:64'],
                "$list.*.index" => ['required', 'integer', 'between:1,64', 'distinct'],
                "$list.*.on" => ['required', 'boolean'],
                "$list.*.gain_db" => ['required', 'numeric', 'between:' . SoundOfTake::LEAST_DB . ',' . SoundOfTake::MOST_DB],
            ];
        }
        $input = $request->validate($rules);
        $sound->set(
            $take,
            self::who($request),
            $input['channels'] === null ? null : array_values($input['channels']),
            $input['was'] === null ? null : array_values($input['was']),
        );

        return new JsonResponse([]);
    }

    public function head(Request $request, Production $production, Clip $clip, SoundOfTake $sound): JsonResponse
    {
        $input = $request->validate([
            'slate' => ['sometimes', 'boolean'],
            'frames' => ['sometimes', 'nullable', 'integer'],
            'was' => ['present', 'nullable', 'integer'],
        ]);
        $was = $input['was'] === null ? null : (int) $input['was'];
        if ($input['slate'] ?? false) {
            return new JsonResponse(['frames' => $sound->beginAtSlate($clip, self::who($request), $was)]);
        }
        $frames = isset($input['frames']) ? (int) $input['frames'] : null;
        $sound->trimHead($clip, self::who($request), $frames, $was);

        return new JsonResponse(['frames' => $frames]);
    }

    public function applyClock(Request $request, Production $production, ShootDay $day, StateClock $state): JsonResponse
    {
        $input = $request->validate(['device' => ['required', 'string', 'max:12'], 'for' => ['required', Rule::in(['day', 'device'])]]);
        $state->apply($day, $production->devices()->where('letter', $input['device'])->firstOrFail(), self::who($request), $input['for']);

        return new JsonResponse([]);
    }

    public function drift(Request $request, Production $production, Clip $clip, Drift $drift): JsonResponse
    {
        $input = $request->validate(['applied' => ['required', 'boolean'], 'device' => ['required', 'boolean']]);

        return new JsonResponse([
            'changed' => $drift->apply($clip, self::who($request), (bool) $input['applied'], (bool) $input['device']),
        ]);
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

    public function nudge(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validate([
            'unit' => ['required', Rule::in(['frame', 'sample', 'ticks'])],
            'by' => ['required', 'integer', 'between:-500000000000,500000000000'],
            'was_ticks' => ['sometimes', 'nullable', 'integer'],
        ]);
        $by = (int) $input['by'];
        $rate = $production->rate();
        $ticks = match ($input['unit']) {
            'frame' => Ticks::ofFrames($by, $rate),
            'sample' => Ticks::ofSamples($by, 48_000),
            default => $by,
        };
        $placement = $move->nudge($clip, self::who($request), $ticks, isset($input['was_ticks']) ? (int) $input['was_ticks'] : null);

        return new JsonResponse(['start_ticks' => $placement->start_ticks]);
    }

    public function lock(Request $request, Production $production, Clip $clip, MovePlacement $move): JsonResponse
    {
        $input = $request->validate(['locked' => ['required', 'boolean']]);
        $placement = $move->lock($clip, self::who($request), (bool) $input['locked']);

        return new JsonResponse(['locked' => $placement->locked_at !== null]);
    }
}
