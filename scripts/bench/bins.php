<?php

declare(strict_types=1);

// Bins with 200 000 clips, 40 000 takes and 400 bins of people's own in one production: the tree, a bin of 20 000, a rule of four
// conditions, the search, 5 000 references moved; in the page a cell that is written and the waves of 64 channels. The bars are of
// milliseconds, since hands wait for them; a floor stands beside each.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

const ROUNDS = 25;

$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$base = '/api/productions/' . $session['productions'][0]['ulid'];
[, $tree] = $ask("$base/bins");
[$many, $other, $third] = array_column(array_slice($tree['own'], 0, 3), 'key');
[, $facts] = $ask($base);
$day = $facts['days'][3]['ulid'];

/** @param  callable(int): array{string, array<mixed>|null}  $request  of a round: the path and what is sent */
$measure = static function (string $title, float $bar, int $rounds, callable $request) use ($ask): void {
    $times = $floor = [];
    for ($round = 0; $round < $rounds + 2; $round++) {
        [$alone] = $ask('/api/session');
        [$time, $answer] = $ask(...$request($round));
        if ($round >= 2) {
            $times[] = $time; // the first two warm the caches
            $floor[] = $alone;
        }
    }
    sort($times);
    sort($floor);
    $p95 = $times[(int) (0.95 * count($times))];
    Bars::check(
        sprintf(
            'bins     %-34s p50 %6.1f ms, p95 %6.1f ms (bar %.0f ms; floor %.1f ms)%s',
            $title,
            $times[intdiv(count($times), 2)],
            $p95,
            $bar,
            $floor[intdiv(count($floor), 2)],
            isset($answer['total']) ? ", {$answer['total']} found" : '',
        ),
        $p95 <= $bar,
    );
};
$is = static fn(string $about, string $test, string ...$values): array => compact('about', 'test') + ['values' => $values];
$rule = static fn(array ...$parts): array => ['rule' => ['join' => 'all', 'parts' => $parts], 'limit' => 200];

$measure('the tree, 400 bins', 100, ROUNDS, static fn(): array => ["$base/bins", null]);
$measure('a bin of 20 000, its first page', 1000, ROUNDS, static fn(): array => ["$base/bins/$many/items", null]);
$measure('a bin of 20 000, a late page', 1000, ROUNDS, static fn(): array => ["$base/bins/$many/items?from=16000", null]);
$measure('a bin of 20 000 by its length', 1000, ROUNDS, static fn(): array => ["$base/bins/$many/items?order=length&down=1", null]);
$measure(
    'a rule of four about takes',
    150,
    ROUNDS,
    static fn(int $n): array => [
        "$base/bins/look",
        $rule($is('entry', 'is', 'take'), $is('status', 'is', 'circled'), $is('notes', 'contains', "frame $n"), $is('cut', 'blank')),
    ],
);
$measure(
    'a rule of four about clips',
    150,
    ROUNDS,
    static fn(int $n): array => [
        "$base/bins/look",
        $rule($is('entry', 'is', 'clip'), $is('day', 'is', $day), $is('device', 'is', 'B'), $is('description', 'contains', 'What')),
    ],
);
$measure(
    'a rule of four, wide',
    150,
    ROUNDS,
    static fn(int $n): array => [
        "$base/bins/look",
        $rule($is('status', 'is', 'circled'), $is('size', 'is', 'Wide'), $is('length', 'least', '5'), $is('bin', 'blank')),
    ],
);
$measure('the search, a slate', 150, ROUNDS, static fn(int $n): array => ["$base/search?q=" . (3 + $n) . 'A/4', null]);
$measure('the search, a word', 150, ROUNDS, static fn(int $n): array => ["$base/search?q=gull", null]);
$measure('the search, a clip', 150, ROUNDS, static fn(int $n): array => ["$base/search?q=B0" . (10 + $n) . 'C0123', null]);
[, $all] = $ask("$base/bins/$many/refs");
$refs = array_slice($all['refs'], 0, 5000);
$measure('5 000 references moved', 1000, 8, static function (int $n) use ($base, $other, $third, $refs): array {
    [$to, $from] = $n % 2 === 0 ? [$other, $third] : [$third, $other];

    return ["$base/bins/$to/items", ['refs' => $refs, 'from' => $from]];
});
// In the page: a cell that is written, and the waves of 64 channels of two hours.
$open = require __DIR__ . '/page.php';
$address = (string) getenv('APP_URL');
$at = sprintf('%s/%s/%s', $address, $session['productions'][0]['ulid'], $day);
[, $found] = $ask("$base/search?q=sixty-four");
$long = $found['hits'][0]['ulid'] ?? throw new RuntimeException('The clip of 64 channels is not there.');
[$chrome, $until] = $open($address);
try {
    $driver = $chrome->driver;
    $driver->manage()->timeouts()->setScriptTimeout(60);
    $say = static function (string $title, array $times, float $bar): void {
        sort($times);
        $p95 = $times[(int) (0.95 * count($times))];
        Bars::check(
            sprintf('bins     %-34s p50 %6.1f ms, p95 %6.1f ms (bar %.0f ms)', $title, $times[intdiv(count($times), 2)], $p95, $bar),
            $p95 <= $bar,
        );
    };
    $driver->get("$at/bins?bin=$many");
    $until('document.querySelectorAll(".rows .row[data-clip]").length > 8');
    $shown = [];
    for ($n = 0; $n < ROUNDS; $n++) {
        $shown[] = (float) $driver->executeAsyncScript(
            <<<'JS'
            const [n, done] = arguments
            const key = (target, name) =>
              target.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }))
            key(window, 'ArrowDown')
            requestAnimationFrame(() => {
              key(window, 'e')
              const open = () => {
                const box = document.querySelector('.rows input.box')
                if (box === null) return requestAnimationFrame(open)
                box.value = `The gull leaves ${n}`
                box.dispatchEvent(new Event('input'))
                const began = performance.now()
                key(box, 'Enter')
                const look = () => {
                  if ([...document.querySelectorAll('.rows .row .cell')].some((one) => one.textContent === `The gull leaves ${n}`))
                    requestAnimationFrame(() => done(performance.now() - began))
                  else requestAnimationFrame(look)
                }
                look()
              }
              open()
            })
            JS
            ,
            [$n],
        );
    }
    $say('a cell written in a bin of 20 000', $shown, 100);
    $drawn = [];
    for ($n = 0; $n < 7; $n++) {
        $driver->get("$at/clip/$long");
        $driver->executeScript('window.began = performance.now()');
        $drawn[] = (float) $driver->executeAsyncScript(
            <<<'JS'
            const done = arguments[0]
            // From when the page asks for the peaks until they are drawn: what lies before is the page's own way.
            const isDrawn = (canvas) =>
              canvas.width > 0 && canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data.some((one) => one > 0)
            const look = () => {
              const canvases = [...document.querySelectorAll('.lane canvas')].filter((one) => one.getBoundingClientRect().top < innerHeight)
              const asked = performance.getEntriesByType('resource').find((one) => one.name.includes('/peaks'))
              if (canvases.length > 3 && asked !== undefined && canvases.every(isDrawn))
                requestAnimationFrame(() => done(performance.now() - asked.startTime))
              else requestAnimationFrame(look)
            }
            look()
            JS
            ,
        );
    }
    $say('peaks of 64 channels, two hours', $drawn, 300);
} finally {
    $chrome->quit();
}
exit(Bars::status());
