<?php

declare(strict_types=1);

namespace App\Http\Handoff;

use App\Domain\Handoff\Back\CompareCuts;
use App\Domain\Handoff\Back\LinkByHand;
use App\Domain\Handoff\Back\PullOriginals;
use App\Domain\Handoff\Back\ReceivedEvents;
use App\Domain\Handoff\Back\ReceivedLists;
use App\Domain\Handoff\Back\ReceiveList;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Handoff\Answers\AlsoLinkableAnswer;
use App\Http\Handoff\Answers\AlsoLinkablesAnswer;
use App\Http\Handoff\Answers\CameBackAnswer;
use App\Http\Handoff\Answers\CutNameAnswer;
use App\Http\Handoff\Answers\LinkedAnswer;
use App\Http\Handoff\Answers\ReceivedListAnswer;
use App\Http\Handoff\Answers\ReceivedListsAnswer;
use App\Http\Handoff\Requests\CompareRequest;
use App\Http\Handoff\Requests\LinkEventsRequest;
use App\Http\Handoff\Requests\PullRequest;
use App\Http\Handoff\Requests\ReceiveRequest;
use App\Http\Sequences\Answers\ComparedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\StoredSequence;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Lists that come back from the editing team: brought in, linked, compared. */
final class ReceivedController extends Controller
{
    public function index(Production $production, ReceivedLists $lists): JsonResponse
    {
        return new JsonResponse(new ReceivedListsAnswer(Answers::list(ReceivedListAnswer::class, $lists->of($production))));
    }

    public function store(ReceiveRequest $request, Production $production, ReceiveList $receive): JsonResponse
    {
        $day = $request->validated('day') === null ? null : $production->days()->where('ulid', $request->validated('day'))->first();
        $file = self::sent($request);
        $made = $receive(
            $production,
            self::who($request),
            $day,
            $file->getClientOriginalName(),
            $file->getContent(),
            $request->frameRate(),
        );

        return new JsonResponse(new MadeAnswer($made->ulid), 201);
    }

    public function show(Production $production, StoredSequence $sequence, ReceivedEvents $events): JsonResponse
    {
        self::received($sequence);
        $others = CompareCuts::with($sequence)->map(
            static fn(StoredSequence $one): CutNameAnswer => new CutNameAnswer($one->ulid, $one->name, $one->kind->value),
        );

        return new JsonResponse(Answers::make(CameBackAnswer::class, $events->of($sequence) + ['others' => $others->all()]));
    }

    public function link(LinkEventsRequest $request, Production $production, StoredSequence $sequence, LinkByHand $link): JsonResponse
    {
        self::received($sequence);
        $link($sequence, self::who($request), $request->pairs($production));

        return new JsonResponse(new DoneAnswer());
    }

    /** What else could be linked as the first of some events is to be. */
    public function others(LinkEventsRequest $request, Production $production, StoredSequence $sequence, LinkByHand $link): JsonResponse
    {
        self::received($sequence);
        ['track' => $track, 'index' => $index, 'clip' => $clip] = $request->pairs($production)[0];

        return new JsonResponse(
            new AlsoLinkablesAnswer(Answers::list(AlsoLinkableAnswer::class, $link->others($sequence, $track, $index, $clip))),
        );
    }

    public function again(Request $request, Production $production, StoredSequence $sequence, ReceiveList $receive): JsonResponse
    {
        self::received($sequence);

        return new JsonResponse(new LinkedAnswer($receive->again($sequence, self::who($request))));
    }

    public function pull(PullRequest $request, Production $production, StoredSequence $sequence, PullOriginals $pull): JsonResponse
    {
        $task = $pull($sequence, self::who($request), $request->integer('handles'), $request->boolean('trimmed'));

        return new JsonResponse(new MadeAnswer($task->ulid), 202);
    }

    public function compare(CompareRequest $request, Production $production, StoredSequence $sequence, CompareCuts $compare): JsonResponse
    {
        $before = StoredSequence::query()
            ->where('production_id', $production->id)
            ->whereNull('removed_at')
            ->where('ulid', $request->validated('with'))
            ->first();
        if ($before === null) {
            throw Problem::missing('That cut', 'Choose another one.');
        }

        return new JsonResponse(Answers::make(ComparedAnswer::class, $compare->of($before, $sequence)));
    }

    private static function received(StoredSequence $sequence): void
    {
        if ($sequence->kind !== SequenceKind::Received) {
            throw Problem::missing('That list', 'Load the page again.');
        }
    }
}
