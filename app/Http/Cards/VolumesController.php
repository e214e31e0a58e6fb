<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\ClaimVolume;
use App\Domain\Cards\OffloadAll;
use App\Domain\Cards\OffloadCard;
use App\Domain\Cards\Readers;
use App\Domain\Cards\SetCardTemplate;
use App\Domain\Footage\Stores;
use App\Http\Answers;
use App\Http\Cards\Answers\OffloadAllAnswer;
use App\Http\Cards\Answers\PlaceAnswer;
use App\Http\Cards\Answers\TemplateAnswer;
use App\Http\Cards\Answers\VolumeDetailAnswer;
use App\Http\Cards\Requests\OffloadAllRequest;
use App\Http\Cards\Requests\OffloadRequest;
use App\Http\Cards\Requests\PlaceRequest;
use App\Http\Cards\Requests\TemplateRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Cards in the readers: whose they are, where they would land, their offload. */
final class VolumesController extends Controller
{
    public function volume(Production $production, ShootDay $day, string $volume, Readers $bench): JsonResponse
    {
        $found = $bench->volume($production, $volume);
        $cards = Card::query()
            ->with(['device', 'copies'])
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->get();
        [$seen] = $bench->look($production, collect([$found]), $cards);
        $known = $seen['state'] === 'reused' ? null : $cards->firstWhere('ulid', $seen['known_card']);

        return new JsonResponse(
            Answers::make(VolumeDetailAnswer::class, $seen + ['in_all' => false, 'list' => $bench->files($found, $known)]),
        );
    }

    /** Where a card would land, by the production's template or one that is being tried. */
    public function place(PlaceRequest $request, Production $production, ShootDay $day): JsonResponse
    {
        $input = $request->validated();
        $tried = (clone $production)->forceFill(['card_template' => $input['template'] ?? $production->card_template]);
        $device = ($input['device'] ?? null) === null ? null : $production->devices()->where('letter', $input['device'])->first();
        $card = isset($input['template'])
            ? null
            : Card::query()->with('copies')->where('production_id', $production->id)->where('roll', $input['roll'])->first();
        $place = Stores::placeOf($tried, $day, $device, $input['roll'], $card);

        return new JsonResponse(new PlaceAnswer($place['below'] === '' ? $place['name'] : $place['below'] . '/' . $place['name']));
    }

    public function template(TemplateRequest $request, Production $production, SetCardTemplate $set): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(new TemplateAnswer($set($production, self::who($request), $input['was'], $input['now'])));
    }

    public function offload(
        OffloadRequest $request,
        Production $production,
        ShootDay $day,
        string $volume,
        OffloadCard $offload,
    ): JsonResponse {
        $input = $request->validated();
        $device = ($input['device'] ?? null) === null ? null : self::deviceOf($production, $input['device']);
        $task = $offload(
            $production,
            self::who($request),
            $day,
            $volume,
            $input['roll'],
            $device,
            (bool) ($input['compare'] ?? false),
            $input['to'] ?? null,
        );

        return new JsonResponse(TaskAnswer::of($task), 202);
    }

    /** Every card that is surely one of the day; those that something has to be asked of are named. */
    public function offloadAll(OffloadAllRequest $request, Production $production, ShootDay $day, OffloadAll $offload): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            Answers::make(OffloadAllAnswer::class, $offload($production, self::who($request), $day, $input['to'] ?? null)),
            202,
        );
    }

    /** The volume is this production's from now on, and hidden from the others. */
    public function claim(Request $request, Production $production, string $volume, Readers $bench): JsonResponse
    {
        ClaimVolume::take($bench->volume($production, $volume), $production, 'said by ' . self::who($request)->name);

        return new JsonResponse(new DoneAnswer());
    }

    public function giveBack(Production $production, string $volume, Readers $bench): JsonResponse
    {
        ClaimVolume::giveBack($bench->volume($production, $volume), $production);

        return new JsonResponse(new DoneAnswer());
    }
}
