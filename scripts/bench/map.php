<?php

declare(strict_types=1);

// The map of a day of 12 lanes and 408 clips with their waveforms, in Chromium without a graphics processor: milliseconds
// from frame to frame while it is panned and zoomed at every step, beside those of the same page at rest.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

const FRAMES = 120;

$ask = require __DIR__ . '/client.php';
$base = (string) getenv('APP_URL');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];

$open = require __DIR__ . '/page.php';
[$chrome, $until] = $open($base);
try {
    $driver = $chrome->driver;
    $driver->manage()->timeouts()->setScriptTimeout(120);
    $driver->get("$base/$production/$day/lineup");
    $until(
        'document.querySelectorAll(".placed").length === 408 && ' .
            'performance.getEntriesByType("resource").filter((one) => one.name.includes("peaks")).length >= 200',
    );
    /** @return list<float> milliseconds from frame to frame, sorted */
    $frames = static function (string $step) use ($driver): array {
        $times = $driver->executeAsyncScript(
            <<<JS
            const [count, done] = arguments, map = document.querySelector('.map'), times = []
            const wheel = (more) => map.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: 600, ...more }))
            const step = (n) => { $step }
            let last = performance.now()
            const frame = () => {
              const now = performance.now()
              times.push(now - last)
              last = now
              if (times.length > count) return done(times.slice(1))
              step(times.length)
              requestAnimationFrame(frame)
            }
            requestAnimationFrame(frame)
            JS
            ,
            [FRAMES],
        );
        sort($times);

        return $times;
    };
    $rest = $frames('');
    $floor = $rest[intdiv(FRAMES, 2)];
    printf("map      floor: the page at rest, a frame in %.1f ms\n", $floor);
    $say = static fn(string $what, array $times, float $bar) => Bars::check(
        sprintf(
            'map      %-42s a frame in %5.1f ms (%.1fx, bar %.0fx), 95 of 100 in %5.1f ms',
            $what,
            $times[intdiv(FRAMES, 2)],
            $times[intdiv(FRAMES, 2)] / $floor,
            $bar,
            $times[(int) (FRAMES * 0.95)],
        ),
        $bar >= $times[intdiv(FRAMES, 2)] / $floor,
    );
    $say('zoom with all 408 clips in sight', $frames('wheel({ deltaY: n % 2 ? 30 : -29, ctrlKey: true })'), 4);
    $driver->executeScript(
        'for (let n = 0; n < 12; n++) document.querySelector(".map").dispatchEvent(new WheelEvent("wheel", { ' .
            'bubbles: true, cancelable: true, clientX: 600, ctrlKey: true, deltaY: -60 }))',
    );
    $say('pan, a few takes in sight', $frames('wheel({ deltaY: n % 40 < 20 ? 40 : -40, shiftKey: true })'), 2);
    $say('zoom, a few takes in sight', $frames('wheel({ deltaY: n % 2 ? 30 : -29, ctrlKey: true })'), 2);
} finally {
    $chrome->quit();
}
exit(Bars::status());
