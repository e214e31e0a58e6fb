<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Cards\EditDevices;
use App\Domain\Cards\EditStores;
use App\Domain\Productions\EditDays;
use App\Domain\Productions\EditFields;
use App\Http\Controller;
use App\Http\Settings\Answers\DayAnswer;
use App\Http\Settings\Answers\DeviceAnswer;
use App\Http\Settings\Answers\OwnFieldAnswer;
use App\Models\Device;
use App\Models\Production;
use App\Models\ProductionField;
use App\Models\ShootDay;
use App\Models\Store;
use Cartella\Core\Fields\FieldType;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** What a production is set up with: devices, shoot days, volumes. */
final class SettingsController extends Controller
{
    public function devices(Production $production): JsonResponse
    {
        $counts = EditDevices::clips($production);

        return new JsonResponse([
            'devices' => $production
                ->devices()
                ->orderBy('lane')
                ->get()
                ->map(
                    static fn(Device $device): array => ['clips' => (int) ($counts[$device->id] ?? 0)] + (array) DeviceAnswer::of($device),
                )
                ->all(),
        ]);
    }

    public function addDevice(Request $request, Production $production, EditDevices $edit): JsonResponse
    {
        return new JsonResponse(DeviceAnswer::of($edit->add($production, self::who($request), $this->deviceInput($request, true))), 201);
    }

    public function changeDevice(Request $request, Production $production, Device $device, EditDevices $edit): JsonResponse
    {
        return new JsonResponse(
            DeviceAnswer::of($edit->change($production, self::who($request), $device, $this->deviceInput($request, false))),
        );
    }

    /** @return array<string, mixed> */
    private function deviceInput(Request $request, bool $isNew): array
    {
        $input = $request->validate(
            [
                'letter' => [$isNew ? 'required' : 'sometimes', 'string', 'max:12', 'regex:/\A[\p{L}\p{N}][\p{L}\p{N}_-]*\z/u'],
                'kind' => [$isNew ? 'required' : 'sometimes', Rule::in(Device::KINDS)],
                'note' => ['sometimes', 'nullable', 'string', 'max:60'],
                'colour' => ['sometimes', 'nullable', 'integer', 'between:0,' . (EditDevices::COLOURS - 1)],
                'retired' => ['sometimes', 'boolean'],
            ],
            ['letter.*' => 'A device is called by a letter or a short word.', 'kind.*' => 'Choose what it is.'],
        );

        return array_key_exists('note', $input) ? ['note' => trim((string) $input['note'])] + $input : $input;
    }

    public function addDay(Request $request, Production $production, EditDays $edit): JsonResponse
    {
        $input = $request->validate(
            ['date' => ['required', 'date_format:Y-m-d'], 'unit' => ['nullable', 'string', 'max:60']],
            ['date.*' => 'Write the date as 2026-10-07.'],
        );

        return new JsonResponse(
            DayAnswer::of($edit->add($production, self::who($request), $input['date'], $input['unit'] ?? 'Main unit')),
            201,
        );
    }

    public function changeDay(Request $request, Production $production, ShootDay $day, EditDays $edit): JsonResponse
    {
        $input = $request->validate(
            [
                'number' => ['sometimes', 'integer', 'between:1,9999'],
                'date' => ['sometimes', 'date_format:Y-m-d'],
                'unit' => ['sometimes', 'string', 'max:60', 'regex:/\S/'],
            ],
            ['number.*' => 'A day has a number from 1.', 'date.*' => 'Write the date as 2026-10-07.', 'unit.*' => 'Name the unit.'],
        );

        return new JsonResponse(DayAnswer::of($edit->change($production, self::who($request), $day, $input)));
    }

    public function removeDay(Request $request, Production $production, ShootDay $day, EditDays $edit): JsonResponse
    {
        $edit->remove($production, self::who($request), $day);

        return new JsonResponse([]);
    }

    public function stores(Production $production, EditStores $edit): JsonResponse
    {
        return new JsonResponse(['stores' => $edit->list($production)]);
    }

    public function addStore(Request $request, Production $production, EditStores $edit): JsonResponse
    {
        $input = $request->validate(
            ['name' => ['required', 'string', 'max:60', 'regex:/\S/'], 'path' => ['required', 'string', 'max:400']],
            ['name.*' => 'Give the volume a name.', 'path.*' => 'Give its path.'],
        );
        $store = $edit->add($production, self::who($request), trim($input['name']), trim($input['path']), $request->ip());

        return new JsonResponse(['ulid' => $store->ulid], 201);
    }

    public function changeStore(Request $request, Production $production, Store $store, EditStores $edit): JsonResponse
    {
        $input = $request->validate([
            'name' => ['sometimes', 'string', 'max:60', 'regex:/\S/'],
            'position' => ['sometimes', 'integer', 'between:0,99'],
            'retired' => ['sometimes', 'boolean'],
            'mark' => ['sometimes', 'boolean'],
        ]);
        $edit->change($production, self::who($request), $store, $input, $request->ip());

        return new JsonResponse(['stores' => $edit->list($production)]);
    }

    public function fields(Production $production): JsonResponse
    {
        return new JsonResponse(['fields' => $production->productionFields()->get()->map(OwnFieldAnswer::of(...))->all()]);
    }

    public function addField(Request $request, Production $production, EditFields $edit): JsonResponse
    {
        $input = $request->validate(
            [
                'label' => ['required', 'string', 'max:40', 'regex:/\S/'],
                'type' => ['required', Rule::in(array_column(FieldType::ofProductions(), 'value'))],
                'choices' => ['sometimes', 'array', 'max:' . EditFields::CHOICES],
                'choices.*' => ['string', 'max:60'],
            ],
            ['label.*' => 'Give the field a name of at most 40 characters.'],
        );

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

    public function changeField(Request $request, Production $production, ProductionField $productionField, EditFields $edit): JsonResponse
    {
        $input = $request->validate(
            [
                'label' => ['sometimes', 'required', 'string', 'max:40', 'regex:/\S/'],
                'choices' => ['sometimes', 'array', 'max:' . EditFields::CHOICES],
                'choices.*' => ['string', 'max:60'],
                'retired' => ['sometimes', 'boolean'],
            ],
            ['label.*' => 'Give the field a name of at most 40 characters.'],
        );
        if (isset($input['label'])) {
            $input['label'] = trim($input['label']);
        }

        return new JsonResponse(OwnFieldAnswer::of($edit->change($productionField, $production, self::who($request), $input)));
    }
}
