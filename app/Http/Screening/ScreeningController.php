<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Screening\AddNote;
use App\Domain\Screening\BuildReel;
use App\Domain\Screening\ReelList;
use App\Domain\Screening\ReelShow;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\Recipes;
use App\Domain\Sequences\SequenceStore;
use App\Http\Controller;
use App\Http\Screening\Answers\RebuiltAnswer;
use App\Http\Screening\Answers\ReelAnswer;
use App\Http\Screening\Answers\ReelsAnswer;
use App\Http\Screening\Answers\ReelSummaryAnswer;
use App\Http\Screening\Requests\BuildReelRequest;
use App\Http\Screening\Requests\NoteRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\Take;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Review reels, and what is said while they are watched. */
final class ScreeningController extends Controller
{
    public function index(Production $production, ShootDay $day, ReelList $reels): JsonResponse
    {
        return new JsonResponse(
            new ReelsAnswer(
                array_map(
                    static fn(array $one): ReelSummaryAnswer => ReelSummaryAnswer::of($one['reel'], $one['first'], $one['again']),
                    $reels->of($day),
                ),
            ),
        );
    }

    public function store(BuildReelRequest $request, Production $production, ShootDay $day, BuildReel $build): JsonResponse
    {
        $circled = $request->boolean('circled_only');
        $name = trim((string) $request->validated('name')) ?: sprintf('Day %d, %s', $day->number, $circled ? 'circled' : 'all takes');

        return new JsonResponse(new MadeAnswer($build($day, self::who($request), $name, $circled)->ulid), 201);
    }

    public function show(Production $production, StoredSequence $reel, SequenceStore $store, ReelShow $show): JsonResponse
    {
        return new JsonResponse(ReelAnswer::of($reel, Playlist::of($reel, $store->read($reel)), $show));
    }

    public function again(Production $production, StoredSequence $reel, Recipes $recipes): JsonResponse
    {
        return new JsonResponse(new RebuiltAnswer($recipes->again($reel)));
    }

    public function destroy(Request $request, Production $production, StoredSequence $reel, SequenceStore $store): JsonResponse
    {
        $store->remove($reel, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function note(NoteRequest $request, Production $production, Take $take, AddNote $add): JsonResponse
    {
        $ulid = $request->validated('clip');
        $clip = $ulid === null ? null : Clip::query()->where('production_id', $production->id)->where('ulid', $ulid)->firstOrFail();
        $note = $add($take, self::who($request), $clip, $request->integer('at_ticks'), trim($request->validated('text')));

        return new JsonResponse(new MadeAnswer($note->ulid), 201);
    }
}
