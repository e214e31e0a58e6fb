<?php

declare(strict_types=1);

// Nine cameras on the angle wall in Chromium without a graphics processor: whether they run in step, whether cuts lie on the frames that
// were seen when their keys went down, and whether fifty cuts a minute play with every frame, once. The floor is what one picture of the
// display takes.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

const BITS = 12;
const SECONDS = 60;
const CUTS = 50;

$ask = require __DIR__ . '/client.php';
$base = (string) getenv('APP_URL');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
[, $events] = $ask("/api/productions/$production/days/$day/events");
[, $wall] = $ask("/api/productions/$production/days/$day/angle-cuts", ['event' => $events['events'][0]['key']]);
$open = require __DIR__ . '/page.php';
[$chrome, $until] = $open($base);
$say = static fn(string $what, string $figures, bool $isMet) => Bars::check(sprintf('angles   %-36s %s', $what, $figures), $isMet);
try {
    $driver = $chrome->driver;
    $measuring = require __DIR__ . '/measure.php';
    $measure = $measuring($driver, 'angles');
    $read = (string) file_get_contents(__DIR__ . '/../../tests/Browser/Support/js/numbers.js');
    $driver->get("$base/$production/$day/assembly?wall={$wall['ulid']}");
    $until('document.querySelectorAll(".wall .tile canvas").length === 9');
    $driver->executeScript($read, [BITS]);
    $floor = $measure('floor')['picture'];
    printf("angles   floor: a picture of the display in %.1f ms\n", $floor);
    $step = $measure('step', ['seconds' => 20]);
    $apart = count(array_filter($step['moments'], static fn(int $one): bool => $one > 1));
    $say(
        'nine angles in step',
        sprintf('%d of %d pictures of the display more than a frame apart (bar 0.1 %%)', $apart, count($step['moments'])),
        count($step['moments']) > 600 && $apart <= count($step['moments']) / 1000,
    );
    $say(
        'each of the nine',
        sprintf('%.1f of 25 frames a second at least (bar 24.5)', min($step['perSecond'])),
        min($step['perSecond']) >= 24.5,
    );
    $live = $measure('live', ['cuts' => CUTS, 'seconds' => SECONDS]);
    [, $cut] = $ask("/api/productions/$production/sequences/{$wall['ulid']}");
    $frame = 705_600_000 / 25;
    $starts = array_map(
        static fn(array $item): int => intdiv($item['record_start_ticks'], (int) $frame),
        $cut['value']['tracks'][0]['items'],
    );
    $misses = array_map(
        static fn(array $press): int => min(array_map(static fn(int $start): int => abs($start - $press[1]), [...$starts, -1000])),
        $live['pressed'],
    );
    $say(
        'cuts on the frame of their key',
        sprintf(
            '%d of %d, at most %d frames beside it (bar 1)',
            count(array_filter($misses, static fn(int $one): bool => $one <= 1)),
            count($misses),
            max($misses),
        ),
        count($misses) === CUTS && max($misses) <= 1,
    );
    [, $into] = $ask("/api/productions/$production/cuts", ['name' => 'Played']);
    $ask("/api/productions/$production/sequences/{$wall['ulid']}/lay", ['into' => $into['ulid'], 'at_ticks' => null]);
    $driver->get("$base/$production/$day/assembly?cut={$into['ulid']}");
    $until('Number(document.querySelector(".paper")?.dataset.perPixel) > 0');
    $driver->executeScript($read, [BITS]);
    // Its first moments are not of the cut: the page is still being drawn.
    time_sleep_until(time() + 3);
    $played = $measure('played', ['seconds' => SECONDS - 2]);
    $say(
        'fifty cuts a minute played',
        sprintf(
            '%d frames over %d cuts, %d missing, %d seen again (bar 0)',
            $played['seen'],
            count($starts) - 1,
            $played['missing'],
            $played['again'],
        ),
        $played['seen'] > 25 * (SECONDS - 10) && $played['missing'] === 0 && $played['again'] === 0,
    );
} finally {
    $chrome->quit();
}
exit(Bars::status());
