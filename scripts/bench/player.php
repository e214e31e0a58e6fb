<?php

declare(strict_types=1);

// The player in Chromium without a graphics processor, on proxies of 960x540: seeks, cuts, backwards, dropped frames, nine decks, the
// first frame after a click, and memory over MINUTES of playing and 500 seeks. The floor is the browser's own decoder.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

const SEEKS = 500;
const MOST_BYTES = 600_000_000;

$minutes = max(1, (int) ($argv[1] ?? 30));
[$making, $alone] = [(float) getenv('BENCH_MAKING'), (float) getenv('BENCH_ALONE')];
// The recipe before this one, which kept no channels and no small rendition, took 1.04 times as long as the proxy alone.
Bars::check(
    sprintf(
        'player   %-36s %5.1f s of a minute; the proxy alone %.1f s (%.2fx, bar 1.15x)',
        'making proxies, channels, peaks',
        $making,
        $alone,
        $making / $alone,
    ),
    $making / $alone <= 1.15,
);

$ask = require __DIR__ . '/client.php';
$base = (string) getenv('APP_URL');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
[, $page] = $ask("/api/productions/$production/bins/all/items?from=0&limit=50");
$clips = array_map(
    static fn(array $row): array => ['ulid' => $row['clip'], 'rate' => ['num' => 25, 'den' => 1], 'frames' => 1500],
    array_values(array_filter($page['rows'], static fn(array $row): bool => $row['clip'] !== null)),
);
$manifest = json_decode((string) file_get_contents(__DIR__ . '/../../public/build/manifest.json'), true);
$engine = '/build/' . $manifest['ui/player/engine/index.ts']['file'];
$script = file_get_contents(__DIR__ . '/../../tests/Browser/Support/js/lib.js') . file_get_contents(__DIR__ . '/js/player.js');

$open = require __DIR__ . '/page.php';
[$chrome, $until] = $open($base);
try {
    $driver = $chrome->driver;

    // The first frame of each clip after a click on its row, all of them opened for the first time.
    $driver->get("$base/$production/$day/bins?bin=all");
    $until('document.querySelectorAll(".middle .row[data-clip]").length >= 9');
    $driver->manage()->timeouts()->setScriptTimeout(120);
    $first = $driver->executeAsyncScript(
        <<<'JS'
        const done = arguments[0], times = []
        const rows = [...document.querySelectorAll('.middle .row[data-clip]')]
        const next = async () => {
          for (const row of rows) {
            const before = document.querySelector('.player canvas.shown')?.dataset.clip
            const begin = performance.now()
            row.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }))
            row.click()
            await new Promise((resolve) => {
              const look = () => {
                const player = document.querySelector('.player'), canvas = player?.querySelector('canvas.shown')
                if (canvas && canvas.dataset.clip !== before && player.dataset.frame !== '') resolve()
                else if (performance.now() - begin > 10000) resolve()
                else requestAnimationFrame(look)
              }
              look()
            })
            times.push(performance.now() - begin)
            await new Promise((resolve) => setTimeout(resolve, 300))
          }
          done(times.slice(1))
        }
        next()
        JS
        ,
    );
    sort($first);
    $measure = static function (string $what, array $given = [], int $seconds = 180) use (
        $driver,
        $script,
        $engine,
        $production,
        $clips,
    ): array {
        $driver->manage()->timeouts()->setScriptTimeout($seconds);
        $answer = $driver->executeAsyncScript(
            'const [address, given, done] = arguments; const fail = (trouble) => done({ trouble: String(trouble?.stack ?? trouble) });' .
                "import(address).then(async (engine) => {\n$script\n}).catch(fail)",
            [$engine, ['what' => $what, 'production' => $production, 'clips' => $clips, 'bits' => 12, 'seed' => 7] + $given],
        );

        return isset($answer['trouble']) ? throw new RuntimeException("$what: $answer[trouble]") : $answer;
    };
    $floor = $measure('floor')['group'];
    printf("player   floor: the browser's decoder, a group of 12 pictures in %.1f ms\n", $floor);
    $say = static fn(string $what, string $figures, bool $isMet) => Bars::check(sprintf('player   %-36s %s', $what, $figures), $isMet);
    $seek = $measure('seeks');
    $say(
        'a seek to any frame',
        sprintf(
            'p50 %.0f ms (%.1fx), p95 %.0f ms (%.1fx, bar 100 ms)',
            $seek['p50'],
            $seek['p50'] / $floor,
            $seek['p95'],
            $seek['p95'] / $floor,
        ),
        $seek['p95'] < 100,
    );
    $cut = $measure('cuts');
    $say(
        'the next piece at a cut',
        sprintf('p50 %.0f ms, p95 %.0f ms late (bar 100 ms), %d cuts', $cut['p50'], $cut['p95'], $cut['count']),
        $cut['p95'] < 100 && $cut['count'] >= 59,
    );
    $reverse = $measure('reverse');
    $say('backwards at 1x', sprintf('%.1f frames a second (bar 20)', $reverse['perSecond']), $reverse['perSecond'] >= 20);
    $dropped = $measure('dropped');
    $say(
        'played at 1x',
        sprintf('%d shown, %d dropped: %.2f %% (bar 0.1 %%)', $dropped['shown'], $dropped['dropped'], 100 * $dropped['share']),
        $dropped['share'] < 0.001,
    );
    $wall = $measure('wall');
    $say('nine decks', sprintf('%.1f frames a second each (bar 24.5 of 25)', $wall['perSecond']), $wall['perSecond'] >= 24.5);
    $say(
        'the first frame after a click',
        sprintf('p50 %.0f ms, most %.0f ms of %d (bar 300 ms)', $first[intdiv(count($first), 2)], max($first), count($first)),
        max($first) < 300,
    );
    $bytes = [];
    $seeks = (int) ceil(SEEKS / ($minutes * 2));
    for ($half = 0; $half < 2 * $minutes; $half++) {
        $measure('soak', ['seeks' => $seeks, 'seconds' => max(5, 30 - 0.07 * $seeks), 'seed' => $half + 1], 300);
        $bytes[] = $chrome->rendererBytes();
    }
    // What it takes once is there after a quarter of the time; from then on it stays.
    $early = max(array_slice($bytes, 0, max(1, intdiv(count($bytes), 4))));
    $late = max(array_slice($bytes, -max(1, intdiv(count($bytes), 4))));
    $say(
        sprintf('nine decks, %d min and %d seeks', $minutes, SEEKS),
        sprintf('%d MB early, %d MB late (%.2fx, bar 1.15x and 600 MB)', $early / 1e6, $late / 1e6, $late / $early),
        $late <= 1.15 * $early && max($bytes) < MOST_BYTES,
    );
} finally {
    $chrome->quit();
}
exit(Bars::status());
