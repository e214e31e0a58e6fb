<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Cards\EditDevices;
use App\Http\Controller;
use App\Http\Settings\Answers\DeviceAnswer;
use App\Http\Settings\Answers\DeviceRowAnswer;
use App\Http\Settings\Answers\DevicesAnswer;
use App\Http\Settings\Requests\DeviceRequest;
use App\Models\Device;
use App\Models\Production;
use Illuminate\Http\JsonResponse;

/** Cameras and recorders of a production. */
final class DevicesController extends Controller
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
}
