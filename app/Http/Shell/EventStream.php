<?php

declare(strict_types=1);

namespace App\Http\Shell;

use App\Domain\Tasks\TaskLock;
use App\Support\Problem;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Tells a page what happens while it is open, by server-sent events (HTML, section 9.2). */
final class EventStream
{
    /** One connection holds a PHP process, so it ends now and then and the page opens another. */
    private const SECONDS = 50;

    /** Open connections of one person: more than a browser keeps to one server, in two of them. */
    private const PER_PERSON = 10;

    private const LOOK_EVERY_US = 300_000;

    /** A page that hears nothing for much longer knows that the line is dead, which no page is told. */
    private const STILL_HERE_SECONDS = 8;

    /**
     * A seat is held by the connection's own database session until it ends, however it ends.
     *
     * @param  string  $whose  such as `live.12`
     *
     * @throws Problem if as many pages are open as may be told at once; the others ask every two seconds
     */
    public static function takeSeat(string $whose, int $seats = self::PER_PERSON): void
    {
        for ($seat = 1; $seat <= $seats; $seat++) {
            if (TaskLock::take("$whose.$seat")) {
                return;
            }
        }
        throw Problem::tooOften(60);
    }

    /**
     * @param  string  $first  the id that a page goes on from
     * @param  callable(): list<array{id: int, name: string, data: mixed}>  $next  what happened since it was asked last
     */
    public static function answer(string $first, callable $next, int $everyUs = self::LOOK_EVERY_US): StreamedResponse
    {
        return new StreamedResponse(
            static function () use ($first, $next, $everyUs): void {
                echo "retry: 1000\nid: $first\nevent: hello\ndata: {}\n\n";
                self::push();
                $end = microtime(true) + self::SECONDS;
                $said = microtime(true);
                while (microtime(true) < $end && connection_aborted() === 0) {
                    $events = $next();
                    foreach ($events as $event) {
                        echo "id: {$event['id']}\nevent: {$event['name']}\ndata: " .
                            json_encode($event['data'], JSON_THROW_ON_ERROR) .
                            "\n\n";
                    }
                    if ($events === []) {
                        echo ": still here\n\n"; // a write is how PHP notices that the page is gone
                    }
                    if (microtime(true) - $said > self::STILL_HERE_SECONDS) {
                        $said = microtime(true);
                        echo "event: still\ndata: {}\n\n";
                    }
                    self::push();
                    usleep($everyUs);
                }
            },
            200,
            ['Content-Type' => 'text/event-stream', 'Cache-Control' => 'no-cache', 'X-Accel-Buffering' => 'no'],
        );
    }

    private static function push(): void
    {
        while (ob_get_level() > 0) {
            ob_end_flush();
        }
        flush();
    }
}
