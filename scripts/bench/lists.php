<?php

declare(strict_types=1);

// p50 and p95 of the slate-sheet and bin requests with 20 000 clips, against the smallest request of the same server.

require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

/** Times the session request that a list may take, 95 of 100: a page of rows, and a whole day of 3 MB. */
const BAR = 12.0;
const BAR_WHOLE_DAY = 20.0;

/** Milliseconds in which 95 of 100 edits of a cut of 2 000 items are answered. */
const BAR_EDIT_MS = 50.0;

$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
// Each request has one of the floor beside it, so that a minute in which the machine is busy is one for both.
$measure = static function (string $path) use ($ask): array {
    $times = $floor = [];
    for ($round = 0; $round < 65; $round++) {
        [$alone] = $ask('/api/session');
        [$time, , $bytes] = $ask($path);
        if ($round >= 5) {
            $times[] = $time; // the first few warm the caches
            $floor[] = $alone;
        }
    }
    sort($times);
    sort($floor);

    return [$times[intdiv(count($times), 2)], $times[(int) (0.95 * count($times))], $bytes, $floor[intdiv(count($floor), 2)]];
};
foreach (
    [
        'slate sheet, 2 000 takes' => "days/$day/log",
        'bin, first page' => 'bins/scene:1/items',
        'bin, a late page' => 'bins/scene:1/items?from=3000',
        'tree of bins' => 'bins',
    ]
    as $title => $path
) {
    $bar = str_contains($title, 'slate sheet') ? BAR_WHOLE_DAY : BAR;
    [$p50, $p95, $bytes, $floor] = $measure("/api/productions/$production/$path");
    Bars::check(
        sprintf(
            'lists    %-26s p50 %6.1f ms (%.1fx), p95 %6.1f ms (%.1fx of %.1f ms, bar %.0fx), %d kB',
            $title,
            $p50,
            $p50 / $floor,
            $p95,
            $p95 / $floor,
            $floor,
            $bar,
            intdiv($bytes, 1000),
        ),
        $p95 / $floor <= $bar,
    );
}
// An edit of a long cut: each trims another item by a frame or back, and is answered with the step. The bar is one of milliseconds,
// since a hand waits for it.
$cut = getenv('BENCH_CUT') ?: throw new RuntimeException('BENCH_CUT names no cut.');
$times = [];
for ($round = 0; $round < 120; $round++) {
    [$time] = $ask("/api/productions/$production/sequences/$cut/edit", [
        'step' => $round,
        'label' => 'Trim',
        'operations' => [
            ['op' => 'trim', 'track' => 0, 'index' => (37 * $round) % 2000, 'edge' => 'tail', 'by_ticks' => -28_224_000, 'ripple' => true],
        ],
    ]);
    if ($round >= 5) {
        $times[] = $time;
    }
}
sort($times);
$p95 = $times[(int) (0.95 * count($times))];
Bars::check(
    sprintf(
        'lists    %-26s p50 %6.1f ms (%.1fx), p95 %6.1f ms (bar %.0f ms)',
        'an edit of 2 000 items',
        $times[intdiv(count($times), 2)],
        $times[intdiv(count($times), 2)] / $floor,
        $p95,
        BAR_EDIT_MS,
    ),
    $p95 <= BAR_EDIT_MS,
);
unlink($jar);
exit(Bars::status());
