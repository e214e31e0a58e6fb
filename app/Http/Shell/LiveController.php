<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Productions\Presence;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangesAnswer;
use App\Models\Production;
use App\Support\LiveBus;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Tells a page what changed: server-sent events, or one answer for a page that has to poll. */
final class LiveController extends Controller
{
    public function __construct(private readonly LiveBus $bus) {}

    public function stream(Request $request, Production $production): StreamedResponse
    {
        $last = (int) ($request->header('Last-Event-ID') ?? $request->query('after', '-1'));
        $request->session()->save(); // nothing else may wait for this session meanwhile
        EventStream::takeSeat('live.' . self::who($request)->id);
        Presence::seen($production, self::who($request));
        $bus = $this->bus;
        $last = $last < 0 ? $bus->last($production->id) : $last;

        return EventStream::answer((string) $last, static function () use ($production, &$last, $bus): array {
            $events = $bus->since($production->id, $last);
            $last = $events === [] ? $last : end($events)['id'];

            return array_map(static fn(array $event): array => ['id' => $event['id'], 'name' => 'change', 'data' => $event], $events);
        });
    }

    public function poll(Request $request, Production $production): JsonResponse
    {
        $after = (int) $request->query('after', '-1');
        Presence::seen($production, self::who($request));
        $last = $this->bus->last($production->id);

        return new JsonResponse(new ChangesAnswer($last, $after < 0 ? [] : $this->bus->since($production->id, $after)));
    }
}
