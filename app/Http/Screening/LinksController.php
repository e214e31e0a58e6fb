<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Screening\Links;
use App\Domain\Screening\Rooms;
use App\Http\Controller;
use App\Http\Screening\Answers\LinkAnswer;
use App\Http\Screening\Answers\LinksAnswer;
use App\Http\Screening\Answers\RoomAnswer;
use App\Http\Screening\Requests\LinkRequest;
use App\Http\Screening\Requests\RoomRequest;
use App\Http\Shell\Answers\DoneAnswer;
use App\Models\Production;
use App\Models\ScreeningLink;
use App\Models\StoredSequence;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Who may watch a reel from afar, and where the room is that they can follow. */
final class LinksController extends Controller
{
    public function index(Production $production, StoredSequence $reel): JsonResponse
    {
        return new JsonResponse(new LinksAnswer(array_values(array_map(LinkAnswer::of(...), $reel->links()->with('user')->get()->all()))));
    }

    public function store(LinkRequest $request, Production $production, StoredSequence $reel, Links $links): JsonResponse
    {
        ['link' => $link, 'secret' => $secret] = $links->make(
            $reel,
            self::who($request),
            trim($request->validated('for_name')),
            now()->addHours($request->integer('hours')),
            $request->validated('password'),
        );

        return new JsonResponse(LinkAnswer::of($link, $secret), 201);
    }

    public function destroy(Request $request, Production $production, StoredSequence $reel, ScreeningLink $link, Links $links): JsonResponse
    {
        $links->revoke($link, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function tell(RoomRequest $request, Production $production, StoredSequence $reel, Rooms $rooms): JsonResponse
    {
        $room = $rooms->tell(
            $reel,
            self::who($request),
            $request->integer('at_ticks'),
            $request->float('speed'),
            $request->integer('epoch_ms'),
            (string) $request->validated('shows'),
        );

        return new JsonResponse(RoomAnswer::of($room));
    }

    public function close(Production $production, StoredSequence $reel, Rooms $rooms): JsonResponse
    {
        $rooms->close($reel);

        return new JsonResponse(new DoneAnswer());
    }
}
