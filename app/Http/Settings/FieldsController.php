<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Productions\EditFields;
use App\Http\Controller;
use App\Http\Settings\Answers\FieldsAnswer;
use App\Http\Settings\Answers\OwnFieldAnswer;
use App\Http\Settings\Requests\AddFieldRequest;
use App\Http\Settings\Requests\ChangeFieldRequest;
use App\Models\Production;
use App\Models\ProductionField;
use Cartella\Core\Fields\FieldType;
use Illuminate\Http\JsonResponse;

/** Fields that a production adds for itself. */
final class FieldsController extends Controller
{
    public function fields(Production $production): JsonResponse
    {
        return new JsonResponse(new FieldsAnswer($production->productionFields()->get()->map(OwnFieldAnswer::of(...))->all()));
    }

    public function addField(AddFieldRequest $request, Production $production, EditFields $edit): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            OwnFieldAnswer::of(
                $edit->add(
                    $production,
                    self::who($request),
                    trim($input['label']),
                    FieldType::from($input['type']),
                    array_values($input['choices'] ?? []),
                ),
            ),
            201,
        );
    }

    public function changeField(
        ChangeFieldRequest $request,
        Production $production,
        ProductionField $productionField,
        EditFields $edit,
    ): JsonResponse {
        $input = $request->validated();
        if (isset($input['label'])) {
            $input['label'] = trim($input['label']);
        }

        return new JsonResponse(OwnFieldAnswer::of($edit->change($productionField, $production, self::who($request), $input)));
    }
}
