<?php

declare(strict_types=1);

namespace App\Http\Sequences;

use App\Domain\Sequences\AddPieces;
use App\Http\Controller;
use App\Http\Sequences\Answers\CutAnswer;
use App\Http\Sequences\Answers\CutsAnswer;
use App\Http\Sequences\Answers\PiecesAddedAnswer;
use App\Http\Sequences\Requests\MakeCutRequest;
use App\Http\Sequences\Requests\PiecesRequest;
use App\Models\Clip;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\StoredSequence;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;

/** Cuts that grow by pieces of clips: made, listed, added to. */
final class CutsController extends Controller
{
    public function index(Production $production): JsonResponse
    {
        $cuts = StoredSequence::query()
            ->where('production_id', $production->id)
            ->whereIn('kind', [SequenceKind::Cut, SequenceKind::StringOut])
            ->whereNull('removed_at')
            ->orderByDesc('updated_at')
            ->limit(200)
            ->get(['id', 'ulid', 'name', 'kind', 'running_ticks', 'step']);

        return new JsonResponse(new CutsAnswer($cuts->map(static fn(StoredSequence $one): CutAnswer => CutAnswer::of($one))->all()));
    }

    public function store(MakeCutRequest $request, Production $production, AddPieces $add): JsonResponse
    {
        return new JsonResponse(CutAnswer::of($add->make($production, self::who($request), trim($request->validated('name')))), 201);
    }

    public function add(PiecesRequest $request, Production $production, StoredSequence $sequence, AddPieces $add): JsonResponse
    {
        $input = $request->validated();
        $clips = Clip::query()
            ->with(['card', 'production'])
            ->where('production_id', $production->id)
            ->whereIn('ulid', array_column($input['pieces'], 'clip'))
            ->get()
            ->keyBy('ulid');
        $pieces = [];
        foreach ($input['pieces'] as $piece) {
            $clip = $clips[$piece['clip']] ?? throw Problem::missing('That clip', 'Choose another.');
            $pieces[] = ['clip' => $clip, 'in' => (int) $piece['in_ticks'], 'out' => (int) $piece['out_ticks']];
        }
        $at = $input['at_ticks'] === null ? null : (int) $input['at_ticks'];
        ['end' => $end] = $add->add(
            $sequence->setRelation('production', $production),
            self::who($request),
            $pieces,
            $at,
            trim($input['label']),
        );

        return new JsonResponse(new PiecesAddedAnswer($end));
    }
}
