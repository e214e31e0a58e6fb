<?php

declare(strict_types=1);

namespace App\Http\Lineup;

use App\Domain\Lineup\Looks;
use App\Http\Controller;
use App\Models\Look;
use App\Models\Production;
use Cartella\Core\Look\Cdl;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class LooksController extends Controller
{
    private const VALUES = [
        'slope' => ['required', 'array', 'size:3'],
        'slope.*' => ['numeric'],
        'offset' => ['required', 'array', 'size:3'],
        'offset.*' => ['numeric'],
        'power' => ['required', 'array', 'size:3'],
        'power.*' => ['numeric'],
        'saturation' => ['required', 'numeric'],
    ];

    public function index(Production $production): JsonResponse
    {
        $devices = $production->devices()->whereNotNull('look_id')->get()->groupBy('look_id');

        return new JsonResponse([
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
        ]);
    }

    public function store(Request $request, Production $production, Looks $looks): JsonResponse
    {
        $file = $request->file('file');
        if ($file !== null) {
            $request->validate(['file' => ['file', 'max:1024']], ['file.max' => 'A look is at most 1 MB.']);
            $made = $looks->bring($production, self::who($request), (string) $file->get(), $file->getClientOriginalName());

            return new JsonResponse(['looks' => array_map(self::told(...), $made)], 201);
        }
        $input = $request->validate(['name' => ['required', 'string', 'max:120', 'regex:/\S/']] + self::VALUES, [
            'name.*' => 'Give the look a name.',
        ]);

        return new JsonResponse(
            ['looks' => [self::told($looks->make($production, self::who($request), trim($input['name']), self::cdl($input)))]],
            201,
        );
    }

    public function update(Request $request, Production $production, Look $look, Looks $looks): JsonResponse
    {
        $rules = [];
        foreach (['was', 'now'] as $side) {
            $rules[$side] = ['required', 'array'];
            foreach (self::VALUES as $field => $rule) {
                $rules["$side.$field"] = $rule;
            }
        }
        $input = $request->validate($rules);
        $looks->change($look, self::who($request), self::cdl($input['was']), self::cdl($input['now']));

        return new JsonResponse([]);
    }

    /** For a device, or for clips; without a look a clip has its device's again. */
    public function assign(Request $request, Production $production, Looks $looks): JsonResponse
    {
        $input = $request->validate([
            'look' => ['present', 'nullable', 'string', 'size:26'],
            'device' => ['required_without:clips', 'string', 'max:12'],
            'clips' => ['required_without:device', 'array', 'between:1,1000'],
            'clips.*' => ['string', 'size:26'],
        ]);
        $look =
            $input['look'] === null
                ? null
                : Look::query()->where('production_id', $production->id)->where('ulid', $input['look'])->firstOrFail();
        $of = isset($input['device'])
            ? $production->devices()->where('letter', $input['device'])->firstOrFail()
            : $production->clips()->whereIn('ulid', $input['clips'])->where('kind', 'picture')->get();
        $looks->set($production, self::who($request), $of, $look);

        return new JsonResponse([]);
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
