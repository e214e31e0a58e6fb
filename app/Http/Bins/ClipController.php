<?php

declare(strict_types=1);

namespace App\Http\Bins;

use App\Domain\Bins\ClipSheet;
use App\Domain\Bins\EditBins;
use App\Domain\Bins\SetMarks;
use App\Domain\Footage\ColourClips;
use App\Domain\Footage\EditMarkers;
use App\Domain\Footage\Library;
use App\Http\Bins\Answers\ClipSheetAnswer;
use App\Http\Bins\Answers\MarkerAnswer;
use App\Http\Bins\Answers\MarksAnswer;
use App\Http\Bins\Answers\SplitAnswer;
use App\Http\Bins\Answers\SubclipAnswer;
use App\Http\Bins\Requests\ColoursRequest;
use App\Http\Bins\Requests\MarkerNameRequest;
use App\Http\Bins\Requests\MarkerRequest;
use App\Http\Bins\Requests\MarksRequest;
use App\Http\Bins\Requests\SplitChannelsRequest;
use App\Http\Bins\Requests\SubclipChangeRequest;
use App\Http\Bins\Requests\SubclipRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Clip;
use App\Models\Marker;
use App\Models\Production;
use App\Models\Subclip;
use Cartella\Core\Footage\ChannelSet;
use Cartella\Core\Footage\InvalidReference;
use Cartella\Core\Footage\Span;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** One clip: its sheet, and what people mark and name on it. */
final class ClipController extends Controller
{
    public function show(Request $request, Production $production, Clip $clip, ClipSheet $sheet): JsonResponse
    {
        return new JsonResponse(ClipSheetAnswer::of($sheet->of($clip, self::who($request), $production)));
    }

    public function colours(ColoursRequest $request, Production $production, ColourClips $give): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(new ChangedAnswer($give($production, self::who($request), $input['clips'], $input['colour'])));
    }

    /** The production's own clip for one of a library. */
    public function fromLibrary(Request $request, Production $production, string $shared): JsonResponse
    {
        return new JsonResponse(new MadeAnswer(Library::take($production, self::who($request), strtoupper($shared))->ulid), 201);
    }

    /** Marks are one person's own and need no role. */
    public function marks(MarksRequest $request, Production $production, Clip $clip, SetMarks $set): JsonResponse
    {
        [$in, $out] = array_map(static fn(mixed $ticks): ?int => $ticks === null ? null : (int) $ticks, [
            $request->validated('in_ticks'),
            $request->validated('out_ticks'),
        ]);
        $set($clip, self::who($request), $in, $out);

        return new JsonResponse(new MarksAnswer($in, $out));
    }

    public function addSubclip(SubclipRequest $request, Production $production, Clip $clip, EditBins $edit): JsonResponse
    {
        [$in, $out, $channels] = [$request->validated('in_ticks'), $request->validated('out_ticks'), $request->validated('channels')];
        try {
            $span = $in === null && $out === null ? null : new Span((int) $in, (int) $out);
            $set = $channels === null ? null : new ChannelSet(array_map(intval(...), $channels));
        } catch (InvalidReference) {
            throw EditBins::noRange();
        }
        $subclip = $edit->keepSubclip(
            $clip,
            self::who($request),
            trim($request->validated('name')),
            $span,
            $set,
            $request->integer('handle_ticks'),
        );

        return new JsonResponse(SubclipAnswer::of($subclip), 201);
    }

    public function changeSubclip(
        SubclipChangeRequest $request,
        Production $production,
        Clip $clip,
        Subclip $subclip,
        EditBins $edit,
    ): JsonResponse {
        $input = $request->validated();
        try {
            $span = $input['in_ticks'] === null ? null : new Span((int) $input['in_ticks'], (int) $input['out_ticks']);
        } catch (InvalidReference) {
            throw EditBins::noRange();
        }
        $handle = isset($input['handle_ticks']) ? (int) $input['handle_ticks'] : null;
        $edit->changeSubclip($subclip, self::who($request), trim($input['name']), $span, $handle);

        return new JsonResponse(SubclipAnswer::of($subclip));
    }

    /** Channels of many recordings as pieces of their own, in one step. */
    public function splitChannels(SplitChannelsRequest $request, Production $production, EditBins $edit): JsonResponse
    {
        return new JsonResponse(new SplitAnswer($edit->splitChannels($production, self::who($request), $request->validated('clips'))));
    }

    public function removeSubclip(Request $request, Production $production, Clip $clip, Subclip $subclip, EditBins $edit): JsonResponse
    {
        $edit->removeSubclip($subclip, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function addMarker(MarkerRequest $request, Production $production, Clip $clip, EditMarkers $edit): JsonResponse
    {
        $out = $request->validated('out_ticks');
        $marker = $edit->add(
            $clip,
            self::who($request),
            $request->integer('in_ticks'),
            $out === null ? null : (int) $out,
            trim((string) $request->validated('name')),
            trim((string) $request->validated('note')),
            $request->about(),
        );

        return new JsonResponse(MarkerAnswer::of($marker), 201);
    }

    public function nameMarker(
        MarkerNameRequest $request,
        Production $production,
        Clip $clip,
        Marker $marker,
        EditMarkers $edit,
    ): JsonResponse {
        $note = $request->has('note') ? trim((string) $request->validated('note')) : $marker->note;
        $about = $request->has('about') ? $request->about() : $marker->about;
        $edit->change($marker, self::who($request), trim((string) $request->validated('name')), $note, $about);

        return new JsonResponse(MarkerAnswer::of($marker));
    }

    public function removeMarker(Request $request, Production $production, Clip $clip, Marker $marker, EditMarkers $edit): JsonResponse
    {
        $edit->remove($marker, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }
}
