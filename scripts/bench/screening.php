<?php

declare(strict_types=1);

// A reel of 200 takes in the dark room, in Chromium without a graphics processor: how soon the next take and a called slate are on the
// screen, whether keys are lost, whether the house screen shows the desk's frame, and over MINUTES whether sound comes with its picture.
// The floor is what one picture of the display takes.
// Use: screening.php MINUTES [MINUTES OF THE HOUSE], ten of the house by itself

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Tests\Browser\Support\Machine;

const PRESSES = 60;
const KEYS = 300;
const BITS = 12;
const FRAMES = 225;
/** The picture that flashes with a beep, and seconds round it in which pictures are held against it. */
const FLASH = 100;
const AROUND = 0.6;

$minutes = max(1, (int) ($argv[1] ?? 30));
$together = max(1, (int) ($argv[2] ?? min($minutes, 10)));
[$reel, $built] = [(string) getenv('BENCH_REEL'), (float) getenv('BENCH_BUILT')];
$say = static fn(string $what, string $figures, bool $isMet) => Bars::check(sprintf('screening %-34s %s', $what, $figures), $isMet);
$say('a reel of 200 takes is built', sprintf('in %.0f ms (bar 1000 ms)', $built), $built < 1000);

$ask = require __DIR__ . '/client.php';
$base = (string) getenv('APP_URL');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
$open = require __DIR__ . '/page.php';
[$chrome, $until] = $open($base);
$read = implode(
    array_map(static fn(string $name): string => (string) file_get_contents(__DIR__ . "/../../tests/Browser/Support/js/$name.js"), [
        'numbers',
        'screens',
    ]),
);
try {
    $driver = $chrome->driver;
    // Before the room plays for the first time, so that what goes to the sound device is known from its first sample on.
    $driver->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
        'cmd' => 'Page.addScriptToEvaluateOnNewDocument',
        'params' => ['source' => (string) file_get_contents(__DIR__ . '/../../tests/Browser/Support/js/tap.js')],
    ]);
    $driver->get("$base/$production/$day/screening?reel=$reel");
    $until('Number(document.querySelector(".room")?.dataset.frame) > 3');
    $driver->executeScript($read, [BITS]);
    $measuring = require __DIR__ . '/measure.php';
    $measure = $measuring($driver, 'screening');
    $p = static function (array $times, float $share): float {
        sort($times);

        return $times[(int) ($share * (count($times) - 1))];
    };
    $floor = $measure('floor')['picture'];
    printf("screening floor: a picture of the display in %.1f ms\n", $floor);
    foreach (
        ['next' => ['the next take is on the screen', 100], 'slate' => ['a called slate is on the screen', 150]]
        as $what => [$title, $bar]
    ) {
        $times = $measure($what, ['count' => PRESSES, 'takes' => 200])['times'];
        $say(
            $title,
            sprintf(
                'p50 %.0f ms (%.1fx), p95 %.0f ms (%.1fx, bar %d ms) of %d',
                $p($times, 0.5),
                $p($times, 0.5) / $floor,
                $p($times, 0.95),
                $p($times, 0.95) / $floor,
                $bar,
                count($times),
            ),
            $p($times, 0.95) < $bar,
        );
    }
    $keys = $measure('keys', ['count' => KEYS]);
    $say('keys at ten a second', sprintf('%d of %d lost (bar 0)', KEYS - $keys['moved'], KEYS), $keys['moved'] === KEYS);

    // Ten minutes of the house beside the desk, and sound as long as it was asked for.
    $desk = $driver->getWindowHandle();
    $driver->switchTo()->newWindow('window');
    $house = $driver->getWindowHandle();
    $driver->get("$base/house/$production");
    $until('document.querySelector(".house[data-curtain=picture]")');
    $driver->executeScript($read, [BITS]);
    $driver->switchTo()->window($desk);
    $measure('play');
    // What was seen while the house was opened and the reel put to its start is no part of it.
    time_sleep_until(time() + 2);
    foreach ([$house, $desk] as $window) {
        $driver->switchTo()->window($window);
        $measure('since', ['frames' => FRAMES]);
    }
    $asked = ['frames' => FRAMES, 'flash' => FLASH, 'around' => AROUND];
    $pairs = $worst = $apart = 0;
    $frames = [];
    for ($begin = $next = time(); time() < $begin + 60 * $together; ) {
        $next += 15;
        time_sleep_until($next);
        $mine = $measure('since', $asked);
        $driver->switchTo()->window($house);
        $theirs = $measure('since', $asked);
        $driver->switchTo()->window($desk);
        $at = 0;
        foreach ($theirs['seen'] as [$moment, $frame]) {
            while (isset($mine['seen'][$at + 1]) && abs($mine['seen'][$at + 1][0] - $moment) <= abs($mine['seen'][$at][0] - $moment)) {
                $at++;
            }
            if (isset($mine['seen'][$at]) && abs($mine['seen'][$at][0] - $moment) < 9) {
                $miss = abs($mine['seen'][$at][1] - $frame);
                $pairs++;
                $frames[$frame] = true;
                $apart += (int) ($miss > 1);
                $worst = max($worst, $miss);
            }
        }
    }
    $say(
        sprintf('house and desk, %d min', $together),
        sprintf('%d of %d moments more than a frame apart, %d at most (bar 0.1 %%)', $apart, $pairs, $worst),
        // Two that stand are in step, too.
        count($frames) > 600 && $apart <= $pairs / 1000,
    );
    // Sound by itself: what the house and the reading of it cost is no part of it.
    $driver->switchTo()->window($house);
    $driver->close();
    $driver->switchTo()->window($desk);
    time_sleep_until(time() + 2);
    $measure('since', $asked);
    // Moments at which somebody else had the processors say nothing, and others are waited for in their place, twice as long at most.
    $all = $late = $taken = [];
    $left = 0;
    $machine = Machine::now();
    $wanted = 60 * $minutes;
    for ($begin = $next = time(), $quiet = 0; $quiet < $wanted && time() < $begin + 2 * $wanted; ) {
        time_sleep_until(++$next);
        $share = $machine->takenSince();
        $machine = Machine::now();
        $taken[$next] = $share >= Machine::TAKEN;
        $quiet += $taken[$next] ? 0 : 1;
        if (($next - $begin) % 15 === 0) {
            array_push($all, ...$measure('since', $asked)['late']);
        }
    }
    foreach ($all as [$moment, $one]) {
        $second = (int) ceil($moment);
        if (($taken[$second - 1] ?? false) || ($taken[$second] ?? false) || ($taken[$second + 1] ?? false)) {
            $left++;
        } else {
            $late[] = $one;
        }
    }
    $off = array_map(static fn(float $one): float => 1000 * abs($one), $late === [] ? [INF] : $late);
    $say(
        sprintf('sound with its picture, %d min', $minutes),
        sprintf(
            'p50 %.1f ms, p99 %.1f ms, %.1f ms at most, of %d pictures (bar 20 ms for p99), in the middle %+.1f ms; ' .
                '%d left out, others had the processors',
            $p($off, 0.5),
            $p($off, 0.99),
            max($off),
            count($off),
            $late === [] ? INF : 1000 * $p($late, 0.5),
            $left,
        ),
        count($off) > $wanted && $p($off, 0.99) <= 20,
    );
} finally {
    $chrome->quit();
}
exit(Bars::status());
