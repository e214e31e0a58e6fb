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
use App\Http\Controller;
use App\Models\Clip;
use App\Models\Preference;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Fields\TakeStatus;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** The slate sheet: what it shows, and every change of takes that a person makes on it. */
final class LogController extends Controller
{
    private const BULK = 2000;

    public function show(Request $request, Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        return new JsonResponse($sheet->of($day));
    }

    /** Some rows of the sheet again, for a page that has the others. */
    public function takes(Request $request, Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        $input = $request->validate(['ulids' => ['required', 'string', 'max:2000', 'regex:/\A[0-9A-Za-z,]+\z/']]);

        return new JsonResponse(['takes' => $sheet->some($day, explode(',', $input['ulids']))]);
    }

    public function scenes(Production $production, ShootDay $day, SceneCoverage $coverage): JsonResponse
    {
        return new JsonResponse(['scenes' => $coverage->of($day)]);
    }

    public function history(Production $production, Take $take, TakeHistory $history): JsonResponse
    {
        return new JsonResponse(['steps' => $history->of($take)]);
    }

    public function edit(Request $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $edit($take, self::who($request), TakeChanges::of($request->input('changes'), $production->fields()));

        return new JsonResponse(['ulid' => $take->ulid]);
    }

    /** Many takes in one step: a pasted range, a fill down, a mark on a selection. */
    public function editMany(Request $request, Production $production, ShootDay $day, EditTake $edit): JsonResponse
    {
        $input = $request->validate(['edits' => ['required', 'array', 'between:1,' . self::BULK]]);
        $edits = array_map(
            static fn(mixed $one): array => is_array($one) && is_string($one['take'] ?? null)
                ? ['take' => $one['take'], 'changes' => TakeChanges::of($one['changes'] ?? null, $production->fields())]
                : throw Problem::refused('input.invalid', 'An edit names no take.', 'Load the page again.'),
            array_values($input['edits']),
        );

        return new JsonResponse(['takes' => $edit->many($production, self::who($request), $edits)->count()]);
    }

    /** Circling is for everybody who watches; a reviewer may change nothing else of a take. */
    public function circle(Request $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $input = $request->validate([
            'was' => ['required', Rule::enum(TakeStatus::class)],
            'now' => ['required', Rule::in([TakeStatus::None->value, TakeStatus::Circled->value])],
        ]);
        $edit($take, self::who($request), ['status' => $input]);

        return new JsonResponse(['ulid' => $take->ulid, 'status' => $input['now']]);
    }

    public function slate(Request $request, Production $production, ShootDay $day, SetSlate $set): JsonResponse
    {
        $input = $request->validate([
            'clips' => ['required', 'array', 'between:1,500'],
            'clips.*' => ['string', 'size:26'],
            'slate' => ['present', 'nullable', 'string', 'max:40'],
            'false_start' => ['sometimes', 'boolean'],
            'was' => ['sometimes', 'nullable', 'string', 'max:40'],
        ]);
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

        return new JsonResponse(['take' => $take?->ulid]);
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

        return new JsonResponse([
            'pieces' => $line->pieces,
            'problems' => $line->problems,
            'hints' => $line->hints,
            'slate' => $line->slate?->label(),
            'does' => match (true) {
                $line->slate === null || ($row === null && !$line->namesSlate) || ($row instanceof Clip && !$line->namesSlate) => 'nothing',
                $row instanceof Clip => $there === null ? 'joins-new' : 'joins',
                default => $there === null ? 'makes' : 'edits',
            },
        ]);
    }

    public function type(Request $request, Production $production, ShootDay $day, LogTyped $log): JsonResponse
    {
        $input = $request->validate([
            'text' => ['required', 'string', 'max:500'],
            'row' => ['present', 'nullable', 'string', 'size:26'],
            'last' => ['sometimes', 'nullable', 'string', 'size:26'],
            'seen' => ['sometimes', 'array', 'max:20'],
        ]);
        $last = self::row($day, $input['last'] ?? '');
        $answer = $log(
            $day,
            self::who($request),
            $input['text'],
            self::row($day, $input['row'] ?? ''),
            $last instanceof Take ? $last : null,
            $request->input('seen'),
        );

        return new JsonResponse(['take' => $answer['take']->ulid, 'slate' => $answer['take']->label(), 'made' => $answer['made']]);
    }

    public function settle(Request $request, Production $production, Take $take, Settle $settle): JsonResponse
    {
        $input = $request->validate([
            'field' => ['required', 'string', 'max:20'],
            'source' => ['required', Rule::in(['now', 'script', 'ixml', 'name'])],
            'alike' => ['sometimes', 'boolean'],
        ]);

        return new JsonResponse([
            'settled' => $settle($take->day, self::who($request), $take, $input['field'], $input['source'], $input['alike'] ?? false),
        ]);
    }

    /** Where a person's cursor stands, for the others on the same day. */
    public function here(Request $request, Production $production, ShootDay $day): JsonResponse
    {
        $input = $request->validate(['row' => ['present', 'nullable', 'string', 'max:26']]);
        $user = self::who($request);
        Live::tell($production->id, Topic::Here, [
            'day' => $day->ulid,
            'who' => $user->ulid,
            'name' => $user->name,
            'initials' => $user->initials(),
            'row' => $input['row'] ?? null,
        ]);

        return new JsonResponse([]);
    }

    public function columns(Request $request, Production $production): JsonResponse
    {
        return new JsonResponse([
            'columns' =>
                Preference::query()
                    ->where('user_id', self::who($request)->id)
                    ->where('production_id', $production->id)
                    ->where('name', 'slate-sheet')
                    ->first()->value ?? null,
        ]);
    }

    public function setColumns(Request $request, Production $production): JsonResponse
    {
        $input = $request->validate([
            'columns' => ['present', 'nullable', 'array', 'max:40'],
            'columns.*.key' => ['required', 'string', 'max:30'],
            'columns.*.width' => ['required', 'integer', 'between:30,900'],
            'columns.*.shown' => ['required', 'boolean'],
        ]);
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

        return new JsonResponse([]);
    }

    public function preview(Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse(['patterns' => $production->slatePatterns(), 'clips' => $read->preview($day)]);
    }

    public function read(Request $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse($read($day, self::who($request)));
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
