<?php

declare(strict_types=1);

namespace App\Http\Sequences;

use App\Domain\Sequences\MakeCut;
use App\Domain\Sequences\PutPieces;
use App\Http\Controller;
use App\Http\Sequences\Answers\CutAnswer;
use App\Http\Sequences\Answers\CutsAnswer;
use App\Http\Sequences\Answers\PiecesAddedAnswer;
use App\Http\Sequences\Answers\SequenceStepAnswer;
use App\Http\Sequences\Requests\MakeCutRequest;
use App\Http\Sequences\Requests\PiecesRequest;
use App\Models\Clip;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;

/** Cuts that grow by pieces of clips: made, listed, added to. */
final class CutsController extends Controller
{
    /** Far more than a production cuts. */
    private const MOST = 5000;

    public function index(Production $production): JsonResponse
    {
        $cuts = StoredSequence::query()
            ->where('production_id', $production->id)
            ->whereIn('kind', [SequenceKind::Cut, SequenceKind::StringOut, SequenceKind::AngleCut])
            ->whereNull('removed_at')
            ->orderByDesc('updated_at')
            ->limit(self::MOST)
            ->get(['id', 'ulid', 'name', 'kind', 'running_ticks', 'step']);

        return new JsonResponse(new CutsAnswer($cuts->map(static fn(StoredSequence $one): CutAnswer => CutAnswer::of($one))->all()));
    }

    public function store(MakeCutRequest $request, Production $production, MakeCut $make): JsonResponse
    {
        return new JsonResponse(CutAnswer::of($make($production, self::who($request), trim($request->validated('name')))), 201);
    }

    public function add(PiecesRequest $request, Production $production, StoredSequence $sequence, PutPieces $put): JsonResponse
    {
        $input = $request->validated();
        $clips = Clip::query()
            ->with(['card', 'production', 'placement', 'device', 'day', 'take'])
            ->where('production_id', $production->id)
            ->whereIn('ulid', array_column($input['pieces'], 'clip'))
            ->get()
            ->keyBy('ulid');
        $takes = Take::query()
            ->where('production_id', $production->id)
            ->whereIn('ulid', array_column($input['pieces'], 'take'))
            ->get()
            ->keyBy('ulid');
        $pieces = array_map(
            static fn(array $piece): array => [
                'clip' => $clips[$piece['clip']] ?? throw Problem::missing('That clip', 'Choose another.'),
                'in' => (int) $piece['in_ticks'],
                'out' => (int) $piece['out_ticks'],
                'take' => $takes[$piece['take'] ?? ''] ?? null,
                'angle' => $piece['angle'] ?? null,
                'character' => $piece['character'] ?? null,
            ],
            $input['pieces'],
        );
        $at = $input['at_ticks'] === null ? null : (int) $input['at_ticks'];
        ['end' => $end, 'step' => $step, 'rate' => $rate, 'others' => $others] = $put(
            $sequence->setRelation('production', $production),
            self::who($request),
            $pieces,
            $input['how'] ?? ($at === null ? 'append' : 'insert'),
            $at ?? 0,
            $input['takes'] ?? 'both',
            isset($input['step']) ? (int) $input['step'] : null,
            trim($input['label']),
            isset($input['track']) ? (int) $input['track'] : null,
            (int) ($input['until_ticks'] ?? 0),
        );

        return new JsonResponse(new PiecesAddedAnswer($end, $step === null ? null : SequenceStepAnswer::of($step), $rate->name, $others));
    }
}
