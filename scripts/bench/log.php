<?php

declare(strict_types=1);

// The log with 20 000 takes and 60 000 clips, and notes of three files that differ on a third of the takes: how fast a day
// of 2 000 takes opens in Chromium, an edit is stored and shown, 500 rows are pasted; whether paging is by index; how many
// keys a clip asks for; what a long table costs in memory.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Cartella\Core\Slate\SlateReader;
use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\Chrome;
use Tests\Browser\Support\SixtyClips;

const OPENINGS = 21;
const EDITS = 60;
const PASTED = 500;

$ask = require __DIR__ . '/client.php';
$base = (string) getenv('APP_URL');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
$percentile = static function (array $times, float $share): float {
    sort($times);

    return $times[(int) min(count($times) - 1, floor($share * count($times)))];
};
$floors = array_map(static fn(): float => $ask('/api/session')[0], range(1, 30));
$floor = $percentile($floors, 0.5);
printf("log      floor: the session request, p50 %.1f ms\n", $floor);
$say = static function (string $what, array $times, float $bar, float $median = INF) use ($percentile, $floor): void {
    Bars::check(
        sprintf(
            'log      %-34s p50 %6.1f ms (%.1fx%s), p95 %6.1f ms (bar %.0f ms)',
            $what,
            $percentile($times, 0.5),
            $percentile($times, 0.5) / $floor,
            is_infinite($median) ? '' : sprintf(', bar %.0f ms', $median),
            $percentile($times, 0.95),
            $bar,
        ),
        $percentile($times, 0.95) < $bar && $percentile($times, 0.5) < $median,
    );
};

$database = SixtyClips::database();
$plan = $database
    ->query('EXPLAIN SELECT * FROM takes WHERE shoot_day_id = (SELECT id FROM shoot_days WHERE number = 1) ORDER BY sort_key, id LIMIT 200')
    ->fetchAll(PDO::FETCH_ASSOC)[0];
Bars::check(
    sprintf('log      a page of takes in slate order: index %s, without a sort', $plan['key'] ?? 'none'),
    $plan['key'] !== null && !str_contains((string) $plan['Extra'], 'filesort'),
);

$chrome = Chrome::start();
try {
    $driver = $chrome->driver;
    $driver->manage()->timeouts()->setScriptTimeout(60);
    $press = static function (string ...$keys) use ($driver): void {
        foreach ($keys as $key) {
            (new WebDriverActions($driver))->sendKeys(null, $key)->perform();
        }
    };
    $until = static function (string $condition) use ($driver): void {
        for ($end = microtime(true) + 30; !$driver->executeScript("return Boolean($condition)"); usleep(20_000)) {
            if (microtime(true) > $end) {
                throw new RuntimeException("Not seen: $condition");
            }
        }
    };
    // The page notes by itself when its first row is on screen, and when each answer came and its value was shown.
    $driver->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
        'cmd' => 'Page.addScriptToEvaluateOnNewDocument',
        'params' => [
            'source' => <<<'JS'
            window.bench = { row: null, pressed: 0, shown: [], stored: [], pasted: null }
            const later = (done) => requestAnimationFrame(() => requestAnimationFrame(done))
            const look = () => {
                if (document.querySelector('.row.take')) later(() => (window.bench.row = performance.now()))
                else requestAnimationFrame(look)
            }
            document.addEventListener('DOMContentLoaded', look)
            window.addEventListener('keydown', (event) => { if (event.key === 'Enter') window.bench.pressed = performance.now() }, true)
            const plain = window.fetch
            window.fetch = async (...request) => {
              const began = window.bench.pressed
              const answer = await plain(...request)
              if (request[1]?.method === 'PATCH') window.bench.stored.push(performance.now() - began)
              return answer
            }
            JS
        ,
        ],
    ]);
    $driver->get($base);
    $until('document.querySelector("input[name=email]")');
    $driver->findElement(WebDriverBy::cssSelector('input[name=email]'))->sendKeys('bench@lowwater.test');
    $driver->findElement(WebDriverBy::cssSelector('input[name=password]'))->sendKeys("tide-mill\u{E007}");
    $until('document.querySelector("nav.spine")');
    $opened = [];
    for ($n = 0; $n <= OPENINGS; $n++) {
        $driver->get("$base/$production/$day/log");
        $until('window.bench.row !== null');
        $opened[] = (float) $driver->executeScript('return window.bench.row');
    }
    $say('the whole page, from nothing', array_slice($opened, 1), 2000);
    $opened = [];
    for ($n = 0; $n < OPENINGS; $n++) {
        $driver->get("$base/$production/$day/day");
        $until('document.querySelector("nav.spine") && document.querySelector("main").textContent.includes("takes")');
        usleep(1_500_000);
        $opened[] = (float) $driver->executeAsyncScript(
            <<<'JS'
            const done = arguments[0], began = performance.now()
            const later = (then) => requestAnimationFrame(() => requestAnimationFrame(then))
            const shown = () => document.querySelector('.row.take') !== null
            const look = () => (shown() ? later(() => done(performance.now() - began)) : requestAnimationFrame(look))
            window.dispatchEvent(new KeyboardEvent('keydown', { key: '3', bubbles: true, cancelable: true }))
            look()
            JS
            ,
        );
    }
    $say('open a day of 2 000 takes', $opened, 1500, 1000);

    $shown = [];
    for ($n = 0; $n < EDITS; $n++) {
        $text = "Mara turns $n";
        $press(WebDriverKeys::ENTER);
        $until('document.querySelector("input.edit")');
        $driver->executeScript(
            'const input = document.querySelector("input.edit"); input.value = arguments[0]; input.dispatchEvent(new Event("input"))',
            [$text],
        );
        $driver->executeScript(
            <<<'JS'
            const text = arguments[0]
            const seen = new MutationObserver(() => {
              if (![...document.querySelectorAll('.row.take .what > span')].some((one) => one.textContent === text)) return
              seen.disconnect()
              requestAnimationFrame(() => window.bench.shown.push(performance.now() - window.bench.pressed))
            })
            seen.observe(document.querySelector('.sheet'), { subtree: true, childList: true, characterData: true })
            JS
            ,
            [$text],
        );
        $press(WebDriverKeys::ENTER);
        $until("window.bench.stored.length > $n && window.bench.shown.length > $n");
        // A person reads the next row meanwhile, and the sheet is asked for again.
        usleep(500_000);
    }
    $say('an edit is shown', $driver->executeScript('return window.bench.shown'), 100);
    $say('an edit is stored', $driver->executeScript('return window.bench.stored'), 100);

    $times = [];
    for ($n = 0; $n < 5; $n++) {
        $driver->get("$base/$production/$day/log");
        $until('document.querySelector(".row.take")');
        $driver->findElement(WebDriverBy::cssSelector('.row.take [data-column=description]'))->click();
        $rows = implode("\n", array_map(static fn(int $row): string => "Pasted $n $row\tClose", range(1, PASTED)));
        $times[] = (float) $driver->executeAsyncScript(
            <<<'JS'
            const [rows, first, done] = arguments
            const data = new DataTransfer(); data.setData('text/plain', rows)
            const began = performance.now(), before = window.bench.stored.length
            document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
            const is = () => window.bench.stored.length > before && document.querySelector('.row.take .what > span').textContent === first
            const look = () => (is() ? done(performance.now() - began) : setTimeout(look, 5))
            look()
            JS
            ,
            [$rows, "Pasted $n 1"],
        );
    }
    $say('500 rows are pasted', $times, 1000);

    $address = SixtyClips::insert($database, 'Bench');
    $driver->get("$base$address/log");
    $until('document.querySelector(".row.clip")');
    $press('b');
    $keys = 1;
    foreach (SixtyClips::lines() as $at => $line) {
        $press(...mb_str_split($line), ...[WebDriverKeys::ENTER]);
        $keys += mb_strlen($line) + 1;
        $until('document.querySelector("#log-line").value === "" && document.querySelectorAll(".row.clip .faint").length <= ' . (59 - $at));
    }
    Bars::check(
        sprintf('log      keys a clip: %.1f over 60 clips with scene, setup, take, size and description; all of them right', $keys / 60),
        SixtyClips::logged($database) == SixtyClips::expected(),
    );
} finally {
    $chrome->quit();
}

$lines = array_slice(file(dirname(__DIR__, 2) . '/core/tests/Slate/data/names.tsv', FILE_IGNORE_NEW_LINES) ?: [], 1);
$right = $wrong = 0;
foreach ($lines as $line) {
    [$name, $setup, $take, $letter, $part] = explode("\t", $line);
    $slate = SlateReader::name($name);
    $isRight = [(string) $slate->setup, (string) $slate->take, $slate->isReadable() ? (string) $slate->device : '', $slate->part] === [
        $setup,
        $take,
        $letter,
        $part,
    ];
    $right += (int) $isRight;
    $wrong += (int) (!$isRight && $slate->isReadable());
}
Bars::check(
    sprintf(
        'log      slates of %d names: %.1f %% right (bar 98), %d wrong and sure (bar 0)',
        count($lines),
        (100 * $right) / count($lines),
        $wrong,
    ),
    $wrong === 0 && $right >= 0.98 * count($lines),
);

// A long table through the same job that the workers run; each length in a process of its own.
foreach ([10_000, 100_000] as $rows) {
    $run = new Process(
        [PHP_BINARY, '-d', 'memory_limit=256M', 'artisan', 'cartella:bench-notes', (string) $rows],
        dirname(__DIR__, 2),
        timeout: 600,
    );
    $run->mustRun();
    echo $run->getOutput();
}
exit(Bars::status());
