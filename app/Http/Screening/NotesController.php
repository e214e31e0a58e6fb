<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Screening\EditNotes;
use App\Http\Controller;
use App\Http\Screening\Requests\NoteRequest;
use App\Http\Screening\Requests\NoteTextRequest;
use App\Http\Screening\Requests\StarsRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ScreeningNote;
use App\Models\Take;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What is said of takes while they are watched. */
final class NotesController extends Controller
{
    public function add(NoteRequest $request, Production $production, Take $take, EditNotes $edit): JsonResponse
    {
        ['clip' => $clip, 'reel' => $reel, 'out_ticks' => $out] = $request->validated() + [
            'clip' => null,
            'reel' => null,
            'out_ticks' => null,
        ];
        $note = $edit->add(
            $take,
            self::who($request),
            $clip === null ? null : Clip::query()->where('production_id', $production->id)->where('ulid', $clip)->firstOrFail(),
            $request->integer('at_ticks'),
            $out === null ? null : (int) $out,
            trim($request->validated('text')),
            $reel === null ? null : $production->reels()->where('ulid', $reel)->firstOrFail(),
        );

        return new JsonResponse(new MadeAnswer($note->ulid), 201);
    }

    public function change(
        NoteTextRequest $request,
        Production $production,
        Take $take,
        ScreeningNote $screeningNote,
        EditNotes $edit,
    ): JsonResponse {
        $edit->change($screeningNote, self::who($request), trim($request->validated('text')));

        return new JsonResponse(new DoneAnswer());
    }

    public function remove(
        Request $request,
        Production $production,
        Take $take,
        ScreeningNote $screeningNote,
        EditNotes $edit,
    ): JsonResponse {
        $edit->remove($screeningNote, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function rate(StarsRequest $request, Production $production, Take $take, EditNotes $edit): JsonResponse
    {
        $stars = $request->validated('stars');
        $edit->rate($take, self::who($request), $stars === null ? null : (int) $stars);

        return new JsonResponse(new DoneAnswer());
    }
}
