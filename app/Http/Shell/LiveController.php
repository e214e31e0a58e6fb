<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Tasks\TaskLock;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangesAnswer;
use App\Models\Production;
use App\Support\LiveBus;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Tells a page what changed: server-sent events, or one answer for a page that has to poll. */
final class LiveController extends Controller
{
    public function __construct(private readonly LiveBus $bus) {}

    /** One connection holds a PHP process, so it ends now and then and the page opens another. */
    private const SECONDS = 50;

    /** Open connections of one person: more than a browser keeps to one server, in two of them. */
    private const PER_PERSON = 10;

    private const LOOK_EVERY_US = 300_000;

    public function stream(Request $request, Production $production): StreamedResponse
    {
        $last = (int) ($request->header('Last-Event-ID') ?? $request->query('after', '-1'));
        $request->session()->save(); // nothing else may wait for this session meanwhile
        $this->refuseTooMany((int) $request->user()?->getAuthIdentifier());

        $bus = $this->bus;

        return new StreamedResponse(
            static function () use ($production, $last, $bus): void {
                $last = $last < 0 ? $bus->last($production->id) : $last;
                echo "retry: 1000\nid: $last\nevent: hello\ndata: {}\n\n";
                self::push();
                $end = microtime(true) + self::SECONDS;
                while (microtime(true) < $end && connection_aborted() === 0) {
                    $events = $bus->since($production->id, $last);
                    foreach ($events as $event) {
                        $last = $event['id'];
                        echo "id: $last\nevent: change\ndata: " . json_encode($event, JSON_THROW_ON_ERROR) . "\n\n";
                    }
                    if ($events === []) {
                        echo ": still here\n\n"; // a write is how PHP notices that the page is gone
                    }
                    self::push();
                    usleep(self::LOOK_EVERY_US);
                }
            },
            200,
            ['Content-Type' => 'text/event-stream', 'Cache-Control' => 'no-cache', 'X-Accel-Buffering' => 'no'],
        );
    }

    /**
     * A seat is held by the connection's own database session until it ends, however it ends.
     *
     * @throws Problem if the person has as many pages open as may be told at once; the others ask every two seconds
     */
    private function refuseTooMany(int $user): void
    {
        for ($seat = 1; $seat <= self::PER_PERSON; $seat++) {
            if (TaskLock::take("live.$user.$seat")) {
                return;
            }
        }
        throw Problem::tooOften(60);
    }

    public function poll(Request $request, Production $production): JsonResponse
    {
        $after = (int) $request->query('after', '-1');
        $last = $this->bus->last($production->id);

        return new JsonResponse(new ChangesAnswer($last, $after < 0 ? [] : $this->bus->since($production->id, $after)));
    }

    private static function push(): void
    {
        while (ob_get_level() > 0) {
            ob_end_flush();
        }
        flush();
    }
}
