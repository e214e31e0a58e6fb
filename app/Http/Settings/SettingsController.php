<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Cards\EditDevices;
use App\Domain\Cards\EditStores;
use App\Domain\Productions\EditDays;
use App\Domain\Productions\EditFields;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Settings\Answers\DayAnswer;
use App\Http\Settings\Answers\DeviceAnswer;
use App\Http\Settings\Answers\DeviceRowAnswer;
use App\Http\Settings\Answers\DevicesAnswer;
use App\Http\Settings\Answers\FieldsAnswer;
use App\Http\Settings\Answers\OwnFieldAnswer;
use App\Http\Settings\Answers\StoresAnswer;
use App\Http\Settings\Requests\AddDayRequest;
use App\Http\Settings\Requests\AddFieldRequest;
use App\Http\Settings\Requests\AddStoreRequest;
use App\Http\Settings\Requests\ChangeDayRequest;
use App\Http\Settings\Requests\ChangeFieldRequest;
use App\Http\Settings\Requests\ChangeStoreRequest;
use App\Http\Settings\Requests\DeviceRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Device;
use App\Models\Production;
use App\Models\ProductionField;
use App\Models\ShootDay;
use App\Models\Store;
use Cartella\Core\Fields\FieldType;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What a production is set up with: devices, shoot days, volumes. */
final class SettingsController extends Controller
{
    public function devices(Production $production): JsonResponse
    {
        $counts = EditDevices::clips($production);

        return new JsonResponse(
            new DevicesAnswer(
                $production
                    ->devices()
                    ->orderBy('lane')
                    ->get()
                    ->map(
                        static fn(Device $device): DeviceRowAnswer => new DeviceRowAnswer(
                            ...['clips' => (int) ($counts[$device->id] ?? 0)] + (array) DeviceAnswer::of($device),
                        ),
                    )
                    ->all(),
            ),
        );
    }

    public function addDevice(DeviceRequest $request, Production $production, EditDevices $edit): JsonResponse
    {
        return new JsonResponse(DeviceAnswer::of($edit->add($production, self::who($request), $request->facts())), 201);
    }

    public function changeDevice(DeviceRequest $request, Production $production, Device $device, EditDevices $edit): JsonResponse
    {
        return new JsonResponse(DeviceAnswer::of($edit->change($production, self::who($request), $device, $request->facts())));
    }

    public function addDay(AddDayRequest $request, Production $production, EditDays $edit): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            DayAnswer::of($edit->add($production, self::who($request), $input['date'], $input['unit'] ?? 'Main unit')),
            201,
        );
    }

    public function changeDay(ChangeDayRequest $request, Production $production, ShootDay $day, EditDays $edit): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(DayAnswer::of($edit->change($production, self::who($request), $day, $input)));
    }

    public function removeDay(Request $request, Production $production, ShootDay $day, EditDays $edit): JsonResponse
    {
        $edit->remove($production, self::who($request), $day);

        return new JsonResponse(new DoneAnswer());
    }

    public function stores(Production $production, EditStores $edit): JsonResponse
    {
        return new JsonResponse(Answers::make(StoresAnswer::class, ['stores' => $edit->list($production)]));
    }

    public function addStore(AddStoreRequest $request, Production $production, EditStores $edit): JsonResponse
    {
        $input = $request->validated();
        $store = $edit->add($production, self::who($request), trim($input['name']), trim($input['path']), $request->ip());

        return new JsonResponse(new MadeAnswer($store->ulid), 201);
    }

    public function changeStore(ChangeStoreRequest $request, Production $production, Store $store, EditStores $edit): JsonResponse
    {
        $input = $request->validated();
        $edit->change($production, self::who($request), $store, $input, $request->ip());

        return new JsonResponse(Answers::make(StoresAnswer::class, ['stores' => $edit->list($production)]));
    }

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
