<?php

declare(strict_types=1);

// A cut of 2 000 items on 12 tracks in Chromium without a graphics processor: how soon it is open, what the page computes for each picture
// of the display while the paper is scrolled and zoomed, and how soon a step is answered, drawn and taken back. The floor is what one
// picture of the display takes.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

const ROUNDS = 40;

$ask = require __DIR__ . '/client.php';
$base = (string) getenv('APP_URL');
$cut = getenv('BENCH_CUT') ?: throw new RuntimeException('BENCH_CUT names no cut.');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
$p = static function (array $times, float $share): float {
    sort($times);

    return $times[(int) ($share * (count($times) - 1))];
};
// Before a browser takes half of the machine.
$answered = [];
// Rolled there and back, so that the cut is as it was.
for ($round = 0; $round < 2 * ROUNDS; $round++) {
    [$time] = $ask("/api/productions/$production/sequences/$cut/edit", [
        'step' => $round,
        'label' => 'Roll',
        'operations' => [
            ['op' => 'roll', 'track' => 0, 'index' => 3 * intdiv($round, 2), 'by_ticks' => ($round % 2 === 0 ? 1 : -1) * 28_224_000],
        ],
    ]);
    if ($round >= 5) {
        $answered[] = $time;
    }
}
$open = require __DIR__ . '/page.php';
[$chrome, $until] = $open($base);
try {
    $driver = $chrome->driver;
    $driver->get("$base/$production/$day/assembly");
    $until('document.querySelector(".row .name")');
    $measuring = require __DIR__ . '/measure.php';
    $measure = $measuring($driver, 'assembly');
    $floor = $measure('floor')['picture'];
    printf("assembly floor: a picture of the display in %.1f ms\n", $floor);
    $say = static fn(string $what, array $times, float $bar) => Bars::check(
        sprintf(
            'assembly %-44s p50 %.1f ms (%.1fx), p95 %.1f ms (%.1fx, bar %.0f ms) of %d',
            $what,
            $p($times, 0.5),
            $p($times, 0.5) / $floor,
            $p($times, 0.95),
            $p($times, 0.95) / $floor,
            $bar,
            count($times),
        ),
        $p($times, 0.95) < $bar,
    );
    $say('a step is answered', $answered, 50);
    $say('2 000 items on 12 tracks are open', $measure('open')['times'], 1000);
    $say('script for a picture while it scrolls and zooms', $measure('paper')['times'], 16);
    $steps = $measure('edit', ['rounds' => ROUNDS]);
    $say('a step is drawn', $steps['drawn'], 100);
    $back = $measure('undo', ['rounds' => ROUNDS])['drawn'];
    $say('a step is taken back', $back, max(100, 1.5 * $p($steps['drawn'], 0.95)));
} finally {
    $chrome->quit();
}
exit(Bars::status());
