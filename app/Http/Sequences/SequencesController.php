<?php

declare(strict_types=1);

namespace App\Http\Sequences;

use App\Domain\Sequences\ClipUses;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\ToldChanges;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Sequences\Answers\ClipUseAnswer;
use App\Http\Sequences\Answers\ClipUsesAnswer;
use App\Http\Sequences\Answers\ComparedAnswer;
use App\Http\Sequences\Answers\PlaylistAnswer;
use App\Http\Sequences\Answers\SequenceAnswer;
use App\Http\Sequences\Answers\SequenceEditedAnswer;
use App\Http\Sequences\Answers\SequenceHistoryAnswer;
use App\Http\Sequences\Answers\SequenceHistoryStepAnswer;
use App\Http\Sequences\Answers\SequenceStepAnswer;
use App\Http\Sequences\Answers\SequenceStepsAnswer;
use App\Http\Sequences\Answers\SequenceVersionAnswer;
use App\Http\Sequences\Requests\EditRequest;
use App\Http\Sequences\Requests\KeepVersionRequest;
use App\Http\Sequences\Requests\NameCutRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Clip;
use App\Models\Production;
use App\Models\SequenceStep;
use App\Models\SequenceVersion;
use App\Models\StoredSequence;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Cuts of every kind, whatever stage they are for: read, played, changed, kept. */
final class SequencesController extends Controller
{
    public function show(Production $production, StoredSequence $sequence, SequenceStore $store): JsonResponse
    {
        return new JsonResponse(SequenceAnswer::of($sequence, $store->read($sequence)));
    }

    public function playlist(Production $production, StoredSequence $sequence, SequenceStore $store): JsonResponse
    {
        return new JsonResponse(PlaylistAnswer::of(Playlist::of($sequence, $store->read($sequence))));
    }

    public function edit(EditRequest $request, Production $production, StoredSequence $sequence, SequenceStore $store): JsonResponse
    {
        $step = $store->edit(
            $sequence->setRelation('production', $production),
            self::who($request),
            $request->integer('step'),
            $request->validated('operations'),
            trim($request->validated('label')),
        );

        return new JsonResponse(new SequenceEditedAnswer($step === null ? null : SequenceStepAnswer::of($step)));
    }

    public function keep(KeepVersionRequest $request, Production $production, StoredSequence $sequence, SequenceStore $store): JsonResponse
    {
        $version = $store->keepVersion($sequence, self::who($request), trim($request->validated('name')));

        return new JsonResponse(SequenceVersionAnswer::of($version), 201);
    }

    public function goBack(
        Request $request,
        Production $production,
        StoredSequence $sequence,
        SequenceVersion $version,
        SequenceStore $store,
    ): JsonResponse {
        $step = $store->goBackTo($version, self::who($request));

        return new JsonResponse(new SequenceEditedAnswer($step === null ? null : SequenceStepAnswer::of($step)));
    }

    /** What became of the cut since a version of it. */
    public function sinceVersion(
        Production $production,
        StoredSequence $sequence,
        SequenceVersion $version,
        SequenceStore $store,
    ): JsonResponse {
        return new JsonResponse(Answers::make(ComparedAnswer::class, ToldChanges::of($store->version($version), $store->read($sequence))));
    }

    /** A version as it is played beside what the cut is now. */
    public function versionPlaylist(
        Production $production,
        StoredSequence $sequence,
        SequenceVersion $version,
        SequenceStore $store,
    ): JsonResponse {
        return new JsonResponse(PlaylistAnswer::of(Playlist::of($sequence, $store->version($version))));
    }

    /** The steps since one that a page has seen, as far as it is worth to follow them one by one. */
    public function steps(Request $request, Production $production, StoredSequence $sequence): JsonResponse
    {
        $steps = $sequence
            ->steps()
            ->where('number', '>', max(0, $request->integer('after')))
            ->limit(SequenceStepsAnswer::MOST + 1)
            ->get();

        return new JsonResponse(
            new SequenceStepsAnswer(
                $steps->count() > SequenceStepsAnswer::MOST ? null : $steps->map(SequenceStepAnswer::of(...))->values()->all(),
            ),
        );
    }

    /** Who did what to it, the newest first. */
    public function history(Production $production, StoredSequence $sequence): JsonResponse
    {
        $steps = SequenceStep::query()->where('sequence_id', $sequence->id)->with('user')->orderByDesc('number')->limit(200)->get();

        return new JsonResponse(new SequenceHistoryAnswer(SequenceHistoryStepAnswer::all($steps)));
    }

    public function rename(NameCutRequest $request, Production $production, StoredSequence $sequence, SequenceStore $store): JsonResponse
    {
        $store->rename($sequence->setRelation('production', $production), self::who($request), trim($request->validated('name')));

        return new JsonResponse(new DoneAnswer());
    }

    public function destroy(Request $request, Production $production, StoredSequence $sequence, SequenceStore $store): JsonResponse
    {
        $store->remove($sequence, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function uses(Production $production, Clip $clip, ClipUses $uses): JsonResponse
    {
        return new JsonResponse(
            new ClipUsesAnswer(
                array_map(
                    static fn(array $one): ClipUseAnswer => new ClipUseAnswer(
                        $one['sequence']->ulid,
                        $one['sequence']->kind->value,
                        $one['sequence']->name,
                        $one['times'],
                    ),
                    $uses->of($clip),
                ),
            ),
        );
    }
}
