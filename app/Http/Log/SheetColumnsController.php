<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Http\Controller;
use App\Http\Log\Answers\ColumnsAnswer;
use App\Http\Log\Requests\SetColumnsRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Preference;
use App\Models\Production;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The columns of the slate sheet as a person keeps them. */
final class SheetColumnsController extends Controller
{
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
}
