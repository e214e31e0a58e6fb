<?php

declare(strict_types=1);

namespace App\Http\Screening;

use App\Domain\Screening\Links;
use App\Domain\Screening\ReelClips;
use App\Domain\Screening\ReelShow;
use App\Domain\Screening\Rooms;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Http\Controller;
use App\Http\Screening\Answers\GuestAnswer;
use App\Http\Screening\Answers\MomentAnswer;
use App\Http\Screening\Answers\ReelAnswer;
use App\Http\Screening\Answers\RoomAnswer;
use App\Http\Screening\Requests\OpenLinkRequest;
use App\Http\Sequences\Answers\PlaylistAnswer;
use App\Http\Shell\EventStream;
use App\Http\Shell\MediaController;
use App\Models\ScreeningLink;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Somebody from outside who has a link: one reel and its media, nothing else. Each answer looks again whether the link still holds.
 */
final class GuestController extends Controller
{
    /** Open connections of one link. */
    private const SEATS = 6;

    private const LOOK_EVERY_US = 120_000;

    /** Seconds after which an open connection looks whether its link still holds. */
    private const LOOK_AGAIN = 2.0;

    public function __construct(private readonly Links $links) {}

    public function show(Request $request, string $secret): JsonResponse
    {
        $link = $this->links->of($secret);

        return new JsonResponse(GuestAnswer::of($link, self::isOpen($request, $link)));
    }

    public function open(OpenLinkRequest $request, string $secret): JsonResponse
    {
        $link = $this->links->of($secret);
        $this->links->open($link, $request->validated('password'));
        $request->session()->put(self::key($link), true);

        return new JsonResponse(GuestAnswer::of($link, true));
    }

    public function reel(Request $request, string $secret, SequenceStore $store, ReelShow $show): JsonResponse
    {
        $reel = $this->opened($request, $secret)->reel;

        return new JsonResponse(ReelAnswer::of($reel, Playlist::of($reel, $store->read($reel)), $show, [], null));
    }

    public function playlist(Request $request, string $secret, SequenceStore $store): JsonResponse
    {
        $reel = $this->opened($request, $secret)->reel;

        return new JsonResponse(PlaylistAnswer::of(Playlist::of($reel, $store->read($reel))));
    }

    public function media(Request $request, string $secret, string $clip, string $what, ReelClips $clips): Response
    {
        $link = $this->opened($request, $secret);
        $found = $clips->find($link->reel, $clip) ?? throw Problem::missing('That clip', 'Load the page again.');

        return MediaController::answer($found, $what);
    }

    public function room(Request $request, string $secret, Rooms $rooms): JsonResponse
    {
        return new JsonResponse(RoomAnswer::of($rooms->of($this->opened($request, $secret)->sequence_id)));
    }

    /** Where the room is, each time that it is told. */
    public function live(Request $request, string $secret, Rooms $rooms): StreamedResponse
    {
        $link = $this->opened($request, $secret);
        $request->session()->save(); // nothing else may wait for this session meanwhile
        EventStream::takeSeat("guest.$link->id", self::SEATS);
        $last = -1;
        $looked = microtime(true);
        $links = $this->links;

        return EventStream::answer(
            '0',
            static function () use ($rooms, $link, $links, $secret, &$last, &$looked): array {
                if (microtime(true) - $looked > self::LOOK_AGAIN) {
                    // A link that ends meanwhile ends what it opened.
                    $links->of($secret);
                    $looked = microtime(true);
                }
                $room = $rooms->of($link->sequence_id);
                $number = $room->number ?? 0;
                if ($number === $last) {
                    return [];
                }
                $last = $number;

                return [['id' => $number, 'name' => 'room', 'data' => RoomAnswer::of($room)]];
            },
            self::LOOK_EVERY_US,
        );
    }

    public function clock(): JsonResponse
    {
        return new JsonResponse(new MomentAnswer(Rooms::now()));
    }

    /** @throws Problem if the link has ended, or this browser was not let in by it */
    private function opened(Request $request, string $secret): ScreeningLink
    {
        $link = $this->links->of($secret);

        return self::isOpen($request, $link)
            ? $link
            : throw Problem::forbidden('link.closed', 'This reel has to be opened first.', 'Open the link again.');
    }

    private static function isOpen(Request $request, ScreeningLink $link): bool
    {
        return $request->session()->get(self::key($link)) === true;
    }

    private static function key(ScreeningLink $link): string
    {
        return "watch.$link->ulid";
    }
}
