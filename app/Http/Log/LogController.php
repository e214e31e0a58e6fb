<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Footage\SetSlate;
use App\Domain\Log\EditTake;
use App\Domain\Log\LogTyped;
use App\Domain\Log\ReadSlates;
use App\Domain\Log\SceneCoverage;
use App\Domain\Log\Settle;
use App\Domain\Log\SlateSheet;
use App\Domain\Log\TakeHistory;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\CircledAnswer;
use App\Http\Log\Answers\ColumnsAnswer;
use App\Http\Log\Answers\EditedAnswer;
use App\Http\Log\Answers\ScenesAnswer;
use App\Http\Log\Answers\SettledAnswer;
use App\Http\Log\Answers\SlatePreviewAnswer;
use App\Http\Log\Answers\SlateSetAnswer;
use App\Http\Log\Answers\SlateSheetAnswer;
use App\Http\Log\Answers\SlatesReadAnswer;
use App\Http\Log\Answers\TakeHistoryAnswer;
use App\Http\Log\Answers\TakesAnswer;
use App\Http\Log\Answers\TypedAnswer;
use App\Http\Log\Answers\UnderstoodAnswer;
use App\Http\Log\Requests\CircleRequest;
use App\Http\Log\Requests\EditManyRequest;
use App\Http\Log\Requests\HereRequest;
use App\Http\Log\Requests\SetColumnsRequest;
use App\Http\Log\Requests\SettleRequest;
use App\Http\Log\Requests\SlateRequest;
use App\Http\Log\Requests\SomeTakesRequest;
use App\Http\Log\Requests\TypedRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Clip;
use App\Models\Preference;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The slate sheet: what it shows, and every change of takes that a person makes on it. */
final class LogController extends Controller
{
    public function show(Request $request, Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        return new JsonResponse(Answers::make(SlateSheetAnswer::class, $sheet->of($day)));
    }

    /** Some rows of the sheet again, for a page that has the others. */
    public function takes(SomeTakesRequest $request, Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(Answers::make(TakesAnswer::class, ['takes' => $sheet->some($day, explode(',', $input['ulids']))]));
    }

    public function scenes(Production $production, ShootDay $day, SceneCoverage $coverage): JsonResponse
    {
        return new JsonResponse(Answers::make(ScenesAnswer::class, ['scenes' => $coverage->of($day)]));
    }

    public function history(Production $production, Take $take, TakeHistory $history): JsonResponse
    {
        return new JsonResponse(Answers::make(TakeHistoryAnswer::class, ['steps' => $history->of($take)]));
    }

    public function edit(Request $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $edit($take, self::who($request), TakeChanges::of($request->input('changes'), $production->fields(), $production->slate_style));

        return new JsonResponse(new MadeAnswer($take->ulid));
    }

    /** Many takes in one step: a pasted range, a fill down, a mark on a selection. */
    public function editMany(EditManyRequest $request, Production $production, ShootDay $day, EditTake $edit): JsonResponse
    {
        $input = $request->validated();
        $edits = array_map(
            static fn(mixed $one): array => is_array($one) && is_string($one['take'] ?? null)
                ? [
                    'take' => $one['take'],
                    'changes' => TakeChanges::of($one['changes'] ?? null, $production->fields(), $production->slate_style),
                ]
                : throw Problem::refused('input.invalid', 'An edit names no take.', 'Load the page again.'),
            array_values($input['edits']),
        );

        return new JsonResponse(new EditedAnswer($edit->many($production, self::who($request), $edits)->count()));
    }

    /** Circling is for everybody who watches; a reviewer may change nothing else of a take. */
    public function circle(CircleRequest $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $input = $request->validated();
        $edit($take, self::who($request), ['status' => $input]);

        return new JsonResponse(new CircledAnswer($take->ulid, $input['now']));
    }

    public function slate(SlateRequest $request, Production $production, ShootDay $day, SetSlate $set): JsonResponse
    {
        $input = $request->validated();
        $clips = Clip::query()->where('shoot_day_id', $day->id)->whereIn('ulid', $input['clips'])->get();
        if ($clips->count() !== count(array_unique($input['clips']))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }
        $take = $set(
            $day,
            self::who($request),
            $clips,
            $input['slate'],
            $input['false_start'] ?? false,
            array_key_exists('was', $input) ? ['slate' => $input['was']] : null,
        );

        return new JsonResponse(new SlateSetAnswer($take?->ulid));
    }

    /** What the log line would do, while it is typed. */
    public function line(Request $request, Production $production, ShootDay $day, LogTyped $log): JsonResponse
    {
        $text = (string) $request->query('text', '');
        $row = self::row($day, (string) $request->query('row', ''));
        $last = self::row($day, (string) $request->query('last', ''));
        $line = $log->understand($day, $text, $row, $last instanceof Take ? $last : null);
        $there =
            $line->slate === null
                ? null
                : Take::query()
                    ->where('shoot_day_id', $day->id)
                    ->where('setup', $line->slate->setup)
                    ->where('take', $line->slate->take)
                    ->where('part', $line->slate->part)
                    ->first();

        return new JsonResponse(
            Answers::make(UnderstoodAnswer::class, [
                'pieces' => $line->pieces,
                'problems' => $line->problems,
                'hints' => $line->hints,
                'slate' => $line->slate?->label(),
                'does' => match (true) {
                    $line->slate === null || ($row === null && !$line->namesSlate) || ($row instanceof Clip && !$line->namesSlate)
                        => 'nothing',
                    $row instanceof Clip => $there === null ? 'joins-new' : 'joins',
                    default => $there === null ? 'makes' : 'edits',
                },
            ]),
        );
    }

    public function type(TypedRequest $request, Production $production, ShootDay $day, LogTyped $log): JsonResponse
    {
        $input = $request->validated();
        $last = self::row($day, $input['last'] ?? '');
        $answer = $log(
            $day,
            self::who($request),
            $input['text'],
            self::row($day, $input['row'] ?? ''),
            $last instanceof Take ? $last : null,
            $request->input('seen'),
        );

        return new JsonResponse(new TypedAnswer($answer['take']->ulid, $answer['take']->label(), $answer['made']));
    }

    public function settle(SettleRequest $request, Production $production, Take $take, Settle $settle): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            new SettledAnswer($settle($take->day, self::who($request), $take, $input['field'], $input['source'], $input['alike'] ?? false)),
        );
    }

    /** Where a person's cursor stands, for the others on the same day. */
    public function here(HereRequest $request, Production $production, ShootDay $day): JsonResponse
    {
        $input = $request->validated();
        $user = self::who($request);
        Live::tell($production->id, Topic::Here, [
            'day' => $day->ulid,
            'who' => $user->ulid,
            'name' => $user->name,
            'initials' => $user->initials(),
            'row' => $input['row'] ?? null,
        ]);

        return new JsonResponse(new DoneAnswer());
    }

    public function columns(Request $request, Production $production): JsonResponse
    {
        return new JsonResponse(
            new ColumnsAnswer(
                Preference::query()
                    ->where('user_id', self::who($request)->id)
                    ->where('production_id', $production->id)
                    ->where('name', 'slate-sheet')
                    ->first()->value ?? null,
            ),
        );
    }

    public function setColumns(SetColumnsRequest $request, Production $production): JsonResponse
    {
        $input = $request->validated();
        $own = ['user_id' => self::who($request)->id, 'production_id' => $production->id, 'name' => 'slate-sheet'];
        if (($input['columns'] ?? null) === null) {
            Preference::query()->where($own)->delete();
        } else {
            Preference::query()->updateOrCreate($own, [
                'value' => array_map(
                    static fn(array $column): array => [
                        'key' => $column['key'],
                        'width' => (int) $column['width'],
                        'shown' => (bool) $column['shown'],
                    ],
                    $input['columns'],
                ),
            ]);
        }

        return new JsonResponse(new DoneAnswer());
    }

    public function preview(Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse(
            Answers::make(SlatePreviewAnswer::class, ['patterns' => $production->slatePatterns(), 'clips' => $read->preview($day)]),
        );
    }

    public function read(Request $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse(Answers::make(SlatesReadAnswer::class, $read($day, self::who($request))));
    }

    private static function row(ShootDay $day, string $ulid): Take|Clip|null
    {
        if ($ulid === '') {
            return null;
        }

        return Take::query()->where('shoot_day_id', $day->id)->where('ulid', $ulid)->first() ??
            (Clip::query()->where('shoot_day_id', $day->id)->where('ulid', $ulid)->first() ??
                throw Problem::missing('That row', 'Load the page again.'));
    }
}
