<?php

declare(strict_types=1);

namespace App\Http\Settings;

use App\Domain\Cards\EditStores;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Settings\Answers\StoresAnswer;
use App\Http\Settings\Requests\AddStoreRequest;
use App\Http\Settings\Requests\ChangeStoreRequest;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\Store;
use Illuminate\Http\JsonResponse;

/** The places that copies go to. */
final class StoresController extends Controller
{
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
}
