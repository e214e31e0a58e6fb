<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Footage\SetSlate;
use App\Domain\Log\MarkWild;
use App\Domain\Log\ReadSlates;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\SlatePreviewAnswer;
use App\Http\Log\Answers\SlateSetAnswer;
use App\Http\Log\Answers\SlatesReadAnswer;
use App\Http\Log\Requests\SlateRequest;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Slates of clips: said by hand, and read from names and metadata. */
final class SlatesController extends Controller
{
    public function slate(SlateRequest $request, Production $production, ShootDay $day, SetSlate $set, MarkWild $wild): JsonResponse
    {
        $input = $request->validated();
        $byUlid = Clip::query()->where('shoot_day_id', $day->id)->whereIn('ulid', $input['clips'])->get()->keyBy('ulid');
        $clips = collect(array_values(array_unique($input['clips'])))->map(
            static fn(string $ulid): Clip => $byUlid[$ulid] ?? throw Problem::missing('One of those clips', 'Load the page again.'),
        );
        $user = self::who($request);
        if (array_key_exists('wild', $input)) {
            $wild->all($production, $clips, $user, (bool) $input['wild']);

            return new JsonResponse(new SlateSetAnswer(null));
        }
        $take = isset($input['slates'])
            ? $set->each($day, $user, $clips, array_values($input['slates']), $input['were'] ?? null)
            : $set(
                $day,
                $user,
                $clips,
                $input['slate'] ?? null,
                $input['false_start'] ?? false,
                array_key_exists('was', $input) ? ['slate' => $input['was']] : null,
            );

        return new JsonResponse(new SlateSetAnswer($take?->ulid));
    }

    public function preview(Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse(
            Answers::make(SlatePreviewAnswer::class, ['patterns' => $production->slatePatterns(), 'clips' => $read->preview($day)]),
        );
    }

    public function read(Request $request, Production $production, ShootDay $day, ReadSlates $read): JsonResponse
    {
        return new JsonResponse(Answers::make(SlatesReadAnswer::class, $read($day, self::who($request))));
    }
}
