<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\Looks;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Lineup\Answers\LooksAnswer;
use App\Http\Lineup\Requests\AssignLookRequest;
use App\Http\Lineup\Requests\ChangeLookRequest;
use App\Http\Lineup\Requests\NewLookRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Look;
use App\Models\Production;
use Cartella\Core\Look\Cdl;
use Illuminate\Http\JsonResponse;

final class LooksController extends Controller
{
    public function index(Production $production): JsonResponse
    {
        $devices = $production->devices()->whereNotNull('look_id')->get()->groupBy('look_id');

        return new JsonResponse(
            Answers::make(LooksAnswer::class, [
                'looks' => Look::query()
                    ->where('production_id', $production->id)
                    ->orderBy('name')
                    ->get()
                    ->map(
                        static fn(Look $look): array => self::told($look) + [
                            'devices' => $devices->get($look->id)?->pluck('letter')->all() ?? [],
                        ],
                    )
                    ->all(),
            ]),
        );
    }

    public function store(NewLookRequest $request, Production $production, Looks $looks): JsonResponse
    {
        $file = $request->file('file');
        if ($file !== null) {
            $made = $looks->bring($production, self::who($request), (string) $file->get(), $file->getClientOriginalName());

            return new JsonResponse(Answers::make(LooksAnswer::class, ['looks' => array_map(self::told(...), $made)]), 201);
        }
        $input = $request->validated();

        return new JsonResponse(
            Answers::make(LooksAnswer::class, [
                'looks' => [self::told($looks->make($production, self::who($request), trim($input['name']), self::cdl($input)))],
            ]),
            201,
        );
    }

    public function update(ChangeLookRequest $request, Production $production, Look $look, Looks $looks): JsonResponse
    {
        $input = $request->validated();
        $looks->change($look, self::who($request), self::cdl($input['was']), self::cdl($input['now']));

        return new JsonResponse(new DoneAnswer());
    }

    /** For a device, or for clips; without a look a clip has its device's again. */
    public function assign(AssignLookRequest $request, Production $production, Looks $looks): JsonResponse
    {
        $input = $request->validated();
        $look =
            $input['look'] === null
                ? null
                : Look::query()->where('production_id', $production->id)->where('ulid', $input['look'])->firstOrFail();
        $of = isset($input['device'])
            ? $production->devices()->where('letter', $input['device'])->firstOrFail()
            : $production->clips()->whereIn('ulid', $input['clips'])->where('kind', 'picture')->get();
        $looks->set($production, self::who($request), $of, $look);

        return new JsonResponse(new DoneAnswer());
    }

    /** @param  array<string, mixed>  $input */
    private static function cdl(array $input): Cdl
    {
        return Cdl::of(
            array_map(floatval(...), array_values($input['slope'])),
            array_map(floatval(...), array_values($input['offset'])),
            array_map(floatval(...), array_values($input['power'])),
            (float) $input['saturation'],
        );
    }

    /** @return array<string, mixed> */
    private static function told(Look $look): array
    {
        return ['ulid' => $look->ulid, 'name' => $look->name, 'source' => $look->source] + $look->cdl()->toArray();
    }
}
