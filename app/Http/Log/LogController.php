<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Log\EditTake;
use App\Domain\Log\ReadSlates;
use App\Domain\Log\SetSlate;
use App\Domain\Log\SlateSheet;
use App\Domain\Log\TakeHistory;
use App\Http\Controller;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

final class LogController extends Controller
{
    public function show(Production $production, ShootDay $day, SlateSheet $sheet): JsonResponse
    {
        return new JsonResponse($sheet->of($day));
    }

    public function history(Production $production, Take $take, TakeHistory $history): JsonResponse
    {
        return new JsonResponse(['steps' => $history->of($take)]);
    }

    public function read(Request $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse($read($day, self::who($request)));
    }

    public function edit(Request $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $input = $request->validate([
            'changes' => ['required', 'array', 'min:1'],
            'changes.*' => ['array:was,now'],
            'changes.setup.now' => ['sometimes', 'string', 'max:24'],
            'changes.take.now' => ['sometimes', 'integer', 'between:1,999'],
            'changes.description.now' => ['sometimes', 'nullable', 'string', 'max:300'],
            'changes.size.now' => ['sometimes', 'nullable', 'string', 'max:30'],
            'changes.keywords.now' => ['sometimes', 'nullable', 'string', 'max:300'],
            'changes.notes.now' => ['sometimes', 'nullable', 'string', 'max:4000'],
            'changes.status.now' => ['sometimes', Rule::in(['none', 'circled', 'hold', 'ng'])],
            'changes.is_mos.now' => ['sometimes', 'boolean'],
            'changes.is_tail_slate.now' => ['sometimes', 'boolean'],
            'changes.is_wild.now' => ['sometimes', 'boolean'],
            'changes.is_guide_only.now' => ['sometimes', 'boolean'],
            'changes.absent_devices.now' => ['sometimes', 'array'],
        ]);
        $unknown = array_diff(array_keys($input['changes']), EditTake::FIELDS);
        if ($unknown !== []) {
            throw Problem::refused('input.invalid', 'A take has no such field.', 'Load the page again.', ['fields' => array_values($unknown)]);
        }
        $changes = [];
        foreach ($input['changes'] as $field => $change) {
            $changes[$field] = ['was' => $request->input("changes.$field.was"), 'now' => $request->input("changes.$field.now")];
        }
        $edit($take, self::who($request), $changes);

        return new JsonResponse(['ulid' => $take->ulid]);
    }

    /** Circling is for everybody who watches; a reviewer may change nothing else of a take. */
    public function circle(Request $request, Production $production, Take $take, EditTake $edit): JsonResponse
    {
        $input = $request->validate(['was' => ['required', Rule::in(['none', 'circled', 'hold', 'ng'])], 'now' => ['required', Rule::in(['none', 'circled'])]]);
        $edit($take, self::who($request), ['status' => $input]);

        return new JsonResponse(['ulid' => $take->ulid, 'status' => $input['now']]);
    }

    public function slate(Request $request, Production $production, ShootDay $day, SetSlate $set): JsonResponse
    {
        $input = $request->validate([
            'clips' => ['required', 'array', 'between:1,500'], 'clips.*' => ['string', 'size:26'],
            'slate' => ['present', 'nullable', 'string', 'max:40'], 'false_start' => ['sometimes', 'boolean'],
        ]);
        $clips = Clip::query()->where('shoot_day_id', $day->id)->whereIn('ulid', $input['clips'])->get();
        if ($clips->count() !== count(array_unique($input['clips']))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }
        $take = $set($day, self::who($request), $clips, $input['slate'], $input['false_start'] ?? false);

        return new JsonResponse(['take' => $take?->ulid]);
    }
}
