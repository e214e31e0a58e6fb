<?php

declare(strict_types=1);

// Takes a picture of each main view at 1280 by 800, signed in as the demo's assistant.

require __DIR__ . '/../vendor/autoload.php';

use Cartella\Standins\CardBench;
use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\Chrome;

$chrome = Chrome::start();
$driver = $chrome->driver;
$press = static function (string ...$keys) use ($driver): void {
    foreach ($keys as $key) {
        (new WebDriverActions($driver))->sendKeys(null, $key)->perform();
    }
};
$wait = static function (string $condition) use ($driver): void {
    for ($end = microtime(true) + 20; microtime(true) < $end; usleep(50_000)) {
        if ($driver->executeScript("return Boolean($condition)")) {
            return;
        }
    }
    fwrite(STDERR, "Not seen: $condition\n");
};
// Pictures, fonts and waveforms have come when nothing is loading and two frames were drawn since.
$settle = static fn() => $driver->executeAsyncScript(
    'const done = arguments[0]; Promise.all([document.fonts.ready, ...[...document.images].filter((one) ' .
        '=> !one.complete).map((one) => new Promise((ready) => { one.onload = one.onerror = ready ' .
        '}))]).then(() => setTimeout(() => requestAnimationFrame(() => requestAnimationFrame(done)), 700))',
);
$take = static function (string $name) use ($driver, $settle): void {
    $driver->manage()->timeouts()->setScriptTimeout(20);
    for (
        $end = microtime(true) + 8;
        $driver->executeScript('return document.querySelector(".ant-message-notice") !== null') && microtime(true) < $end;
        usleep(100_000)
    ) {
    }
    $settle();
    $driver->takeScreenshot(dirname(__DIR__) . "/docs/screenshots/$name.png");
    echo "docs/screenshots/$name.png\n";
};
$playing = 'document.querySelector("[data-frame]")?.dataset.frame !== ""';
/**
 * A string-out that grows by reads, and an event between its cameras.
 *
 * @param  Closure(string): void  $wait
 * @param  Closure(string...): void  $press
 * @param  Closure(string): void  $take
 */
function cutting(Chrome $chrome, Closure $wait, Closure $press, Closure $take): void
{
    $press('7');
    $wait('document.querySelector(".events .row")');
    $press('a');
    $wait('document.querySelector(".ant-modal input[type=radio]")');
    $press(WebDriverKeys::ENTER);
    $wait('document.querySelector(".cut .line")');
    $chrome->driver->executeScript(
        '[...document.querySelectorAll(".unheard button")].find((one) => one.textContent.includes("Find"))?.click()',
    );
    for ($round = 0; $round < 9; $round++) {
        $wait('document.querySelectorAll(".cut .one").length > 8');
    }
    $press(WebDriverKeys::PAGE_DOWN, WebDriverKeys::ENTER, WebDriverKeys::PAGE_DOWN, WebDriverKeys::ENTER, WebDriverKeys::END, ';');
    $wait('document.querySelector(".beneath .one")');
    $press('t');
    $wait('document.querySelector(".cut").dataset.trying !== ""');
    $take('assembly');
    $press(WebDriverKeys::ESCAPE, WebDriverKeys::ESCAPE);
    $wait('document.querySelector(".events .row")');
    $chrome->driver->executeScript('document.querySelector(".events .row button").click()');
    $wait('document.querySelector(".tile[data-letter=B]")');
    $press('1', ' ');
    foreach (['2', '1', '2'] as $second => $digit) {
        $wait('Number(document.querySelector(".wall").dataset.at) > ' . 705_600_000 * (2 * $second + 3));
        $press($digit);
    }
    $press('k');
    $take('angle-wall');
    $press(WebDriverKeys::ESCAPE);
}

/**
 * A package as the editing team sees it, and a list of theirs that came back.
 *
 * @param  Closure(string): void  $wait
 * @param  Closure(string...): void  $press
 * @param  Closure(string): void  $take
 */
function handedOff(Chrome $chrome, Closure $wait, Closure $press, Closure $take): void
{
    $driver = $chrome->driver;
    $all =
        'const box = document.querySelector(".gate .all input"); if (box) { box.value = "Known to script and sound";' .
        'box.dispatchEvent(new Event("input")) }';
    $driver->executeScript($all);
    $driver->executeScript('setTimeout(() => document.querySelector(".gate .all button")?.click(), 200)');
    $wait('document.querySelector(".act .warn") === null');
    $driver->executeScript('document.activeElement.blur()');
    $press('p');
    // What is said is found meanwhile, and takes the processors.
    for ($round = 0; $round < 6 && !$driver->executeScript('return document.querySelector("article .plain") !== null'); $round++) {
        $wait('document.querySelector("article .plain")');
    }
    $press(WebDriverKeys::ENTER);
    $wait('document.querySelector(".file")');
    $driver->executeScript('[...document.querySelectorAll(".file")].find((one) => one.textContent.includes(".edl")).click()');
    $wait('document.querySelector(".events .row")');
    $take('package');
    // What the editing team made of the reel: one clip from nowhere, one shorter, one gone.
    $list = (string) file_get_contents((glob(dirname(__DIR__) . '/var/inbox/Low Water/*/cuts/*.edl') ?: [])[0]);
    $lines = explode("\r\n", $list);
    $events = array_keys(preg_grep('/^\d{3}  A\d{3} +V/', $lines) ?: []);
    $lines[$events[1]] = preg_replace('/A\d{3}/', 'A009', $lines[$events[1]]);
    $lines[$events[1] + 1] = '* FROM CLIP NAME: A009C001';
    $lines[$events[1] + 2] = $lines[$events[1] + 3] = '';
    $file = sys_get_temp_dir() . '/Low Water, first pass.edl';
    file_put_contents($file, implode("\r\n", array_slice($lines, 0, $events[count($events) - 1])));
    $press(WebDriverKeys::ESCAPE);
    $wait('document.querySelector(".back input[type=file]")');
    $driver->findElement(WebDriverBy::cssSelector('.back input[type=file]'))->sendKeys($file);
    $wait('document.querySelector(".events .row")');
    $press('n');
    $take('received');
}

/** What the house sees, and somebody far away on a tablet. */
function others(Chrome $chrome, callable $wait, callable $press, callable $take): void
{
    $driver = $chrome->driver;
    $driver->manage()->timeouts()->setScriptTimeout(20);
    [$production, $secret] = $driver->executeAsyncScript(
        <<<'JS'
        const done = arguments[0]
        const production = location.pathname.split('/')[1]
        const reel = new URLSearchParams(location.search).get('reel')
        const token = decodeURIComponent((document.cookie.match(/XSRF-TOKEN=([^;]+)/) ?? [])[1] ?? '')
        fetch(`/api/productions/${production}/reels/${reel}/links`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', Accept: 'application/json', 'X-XSRF-TOKEN': token },
          body: JSON.stringify({ for_name: 'Dora Winterfeld', hours: 4 }),
        })
          .then((answer) => answer.json())
          .then((link) => done([production, link.secret]))
        JS
        ,
    );
    $desk = $driver->getWindowHandle();
    $base = (string) preg_replace('#(//[^/]+).*#', '$1', $driver->getCurrentURL());
    foreach (
        [
            'house' => ["/house/$production", '.house[data-curtain=picture]', 1280, 800],
            'guest' => ["/watch/$secret", '.door button', 820, 1180],
        ]
        as $name => [$path, $there, $width, $height]
    ) {
        $driver->switchTo()->newWindow('window');
        $chrome->resize($width, $height);
        $driver->get($base . $path);
        $wait(sprintf('document.querySelector(%s)', json_encode($there)));
        if ($name === 'guest') {
            $driver->executeScript('document.querySelector(".door button").click()');
            $wait('Number(document.querySelector(".guest").dataset.frame) > 0');
            $driver->executeScript(
                '[...document.querySelectorAll(".buttons button")].find((one) => one.textContent.includes("action")).click()',
            );
        }
        $wait('document.querySelector("[data-frame]").dataset.frame !== ""');
        $wait('document.querySelector(".hint") === null');
        $take($name);
        $driver->close();
        $driver->switchTo()->window($desk);
    }
}

/** The bench in all its states: cards of the stand-in bench come in, one fails, one is released, a copy is damaged. */
function cards(RemoteWebDriver $driver, callable $wait, callable $press, callable $take): void
{
    $bench = new CardBench(dirname(__DIR__) . '/var/demo/cards', getenv('CARTELLA_VAR') . '/volumes');
    $pick = static function (string $roll) use ($driver, $wait): void {
        $find = sprintf(
            '[...document.querySelectorAll(".card")].find((one) => one.querySelector("header b").textContent === ' .
                '%s && !one.classList.contains("new"))',
            json_encode($roll),
        );
        $wait($find);
        $driver->executeScript("$find.click()");
        $wait(sprintf('document.querySelector("aside h2").textContent.startsWith(%s)', json_encode($roll)));
    };
    foreach (['B003', 'C001', 'S002'] as $card) {
        $bench->eject($card);
    }
    foreach (['unreadable', 'more-on-A001', 'same-as-A001', 'huge'] as $card) {
        $bench->insert($card);
    }
    $wait(
        '[...document.querySelectorAll(".card.new header b")].filter((one) => ["B010", "COPY A001", "A012", ' .
            '"A001"].includes(one.textContent)).length === 4',
    );
    foreach (['B010', 'A012'] as $card) {
        $driver->executeScript(
            '[...document.querySelectorAll(".card.new")].find((one) => one.querySelector("header b").textContent === arguments[0]).click()',
            [$card],
        );
        $wait(
            sprintf(
                'document.querySelector("aside h2").textContent.startsWith(%s) && document.querySelector("aside ' .
                    '.path")?.textContent.includes(%1$s)',
                json_encode($card),
            ),
        );
        $press(WebDriverKeys::ENTER);
        $wait(
            sprintf('[...document.querySelectorAll(".card:not(.new) header b")].some((one) => one.textContent === %s)', json_encode($card)),
        );
    }
    $pick('A012');
    $wait('Number.parseInt(document.querySelector(".card.on .percent")?.textContent ?? "0") > 10');
    $driver->executeScript('[...document.querySelectorAll(".progress button")].forEach((one) => one.click())');
    $wait('document.querySelector(".card.busy") === null');
    $pick('B001');
    $press(WebDriverKeys::ENTER);
    $wait('document.activeElement?.closest(".ant-modal .words")');
    foreach (mb_str_split('one disk') as $letter) {
        $press($letter);
    }
    $press(WebDriverKeys::ENTER);
    $wait('document.querySelector(".record")');
    $pick('B010');
    $copy = (glob(getenv('CARTELLA_VAR') . '/stores/nearline/Low Water/Day 01/A/A002/ROLL_A002') ?: [])[0];
    foreach (
        [
            ['mv', "$copy/A002C003/A002C003.mov", "$copy/A002C003/A002C003 copy.mov"],
            ['truncate', '-s', '1000', "$copy/A002C002/A002C002.mov"],
            ['rm', "$copy/A002C004/A002C004.mov"],
            ['cp', "$copy/A002C001/A002C001.mov", "$copy/from another card.mov"],
        ]
        as $command
    ) {
        (new Process($command))->mustRun();
    }
    $pick('A002');
    $press('v');
    $wait('document.querySelector(".tree")');
    $driver->executeScript('document.querySelector(".bench").scrollTo(0, 190)');
    $take('cards');
    foreach (['unreadable', 'more-on-A001', 'same-as-A001', 'huge'] as $card) {
        $bench->eject($card);
    }
    foreach (['B003', 'C001', 'S002'] as $card) {
        $bench->insert($card);
    }
}

/** The log line with a colleague on the day, clips as pictures, a table of script notes on its way in, and names. */
function logging(RemoteWebDriver $driver, callable $wait, callable $press, callable $take): void
{
    $colleague = Chrome::start();
    try {
        $other = $colleague->driver;
        $see = static function (string $condition) use ($other): void {
            for (
                $end = microtime(true) + 20;
                !$other->executeScript("return Boolean($condition)") && microtime(true) < $end;
                usleep(50_000)
            ) {
            }
        };
        $other->get((string) getenv('APP_URL'));
        $see('document.querySelector("input[name=email]")');
        $other->findElement(WebDriverBy::name('email'))->sendKeys('adaeze@lowwater.test');
        $other->findElement(WebDriverBy::name('password'))->sendKeys('tide-mill' . WebDriverKeys::ENTER);
        $see('document.body.textContent.includes("Low Water")');
        $other->get($driver->getCurrentURL());
        $see('[...document.querySelectorAll(".row.take")].length > 9');
        $other->executeScript('[...document.querySelectorAll(".row.take")][9].querySelector("[data-column=description]").click()');
        $wait('document.querySelector(".row .here")');
        $press('b');
        foreach (mb_str_split('3A/5 medium, Mara turns to the wheel, circled, #ledger') as $letter) {
            $press($letter);
        }
        $wait('document.querySelectorAll(".says .piece").length === 5');
        $press(WebDriverKeys::ESCAPE);
    } finally {
        $colleague->quit();
    }
}

try {
    $driver->get((string) getenv('APP_URL'));
    $wait('document.querySelector("input[name=email]")');
    $driver->findElement(WebDriverBy::name('email'))->sendKeys('rosa@lowwater.test');
    $driver->findElement(WebDriverBy::name('password'))->sendKeys('tide-mill' . WebDriverKeys::ENTER);
    // It opens the newest day; the first one is worked through.
    $wait('document.querySelector(".date")');
    $driver->executeScript('document.querySelector(".date").click()');
    $wait('document.querySelector(".date.on") === document.querySelector(".date") && document.querySelector(".points")');
    $take('day');
    $press('2');
    $wait('document.querySelector(".card")');
    cards($driver, $wait, $press, $take);
    $press('3');
    $wait($playing);
    for ($row = 0; $row < 4; $row++) {
        $press(WebDriverKeys::ARROW_DOWN);
    }
    $wait($playing);
    $take('log');
    logging($driver, $wait, $press, $take);
    $press('4');
    $wait('document.querySelector(".placed")');
    for ($clip = 0; $clip < 4; $clip++) {
        $press(WebDriverKeys::ARROW_RIGHT);
    }
    $wait($playing);
    $wait('document.querySelector(".check[data-ready=true]")');
    $take('lineup');
    $press('5');
    $wait('document.querySelector(".row img")');
    $press(WebDriverKeys::ARROW_DOWN);
    $wait($playing);
    $press(WebDriverKeys::ALT . '3' . WebDriverKeys::ALT);
    $wait('document.querySelectorAll(".card img").length > 4');
    $take('bins');
    $press(WebDriverKeys::ALT . '1' . WebDriverKeys::ALT);
    $wait('document.querySelector(".rows .row[data-what]")');
    $press(WebDriverKeys::ENTER);
    $wait('document.querySelector(".clip-page .channel")');
    $wait($playing);
    $press(WebDriverKeys::ESCAPE);
    $wait('document.querySelector(".rows .row[data-what]")');
    $driver->executeScript(
        '[...document.querySelectorAll(".tree .bin")].find((one) => one.textContent.includes("Production sound")).click()',
    );
    $wait('document.querySelector(".row[data-clip]") !== null');
    $press(WebDriverKeys::ENTER);
    $wait('document.querySelectorAll(".clip-page .channel").length > 2');
    $wait($playing);
    $take('clip');
    $driver->executeScript('[...document.querySelectorAll(".clip-page .tabs button")].find((one) => one.textContent === "Words").click()');
    $wait('document.querySelector(".find .go, .word")');
    $driver->executeScript('document.querySelector(".find .go")?.click()');
    $wait('document.querySelector(".word")');
    $driver->executeScript('document.querySelector(".list").focus()');
    $press(WebDriverKeys::ARROW_RIGHT, ...array_fill(0, 3, WebDriverKeys::SHIFT . WebDriverKeys::ARROW_RIGHT . WebDriverKeys::NULL));
    $take('words');
    $press('6');
    $wait('document.querySelector(".reels")');
    $take('screening');
    $press(WebDriverKeys::ENTER);
    $wait($playing);
    $wait('Number(document.querySelector(".room").dataset.frame) > 60');
    $press('k');
    $driver->executeScript('window.dispatchEvent(new Event("blur"))');
    $wait('document.querySelector(".room").classList.contains("bare")');
    $press('p', 's');
    $take('room');
    $press('s', '0');
    $wait('document.querySelectorAll(".screens canvas").length === 2');
    $take('room-beside');
    $press('0');
    others($chrome, $wait, $press, $take);
    $press(WebDriverKeys::ESCAPE);
    $wait('document.querySelector(".reels")');
    cutting($chrome, $wait, $press, $take);
    $press('8');
    $wait('document.querySelector(".choose") && document.querySelector(".list table")');
    $take('handoff');
    handedOff($chrome, $wait, $press, $take);
    $press('9');
    $wait('document.querySelector("main .list tr, main table tr")');
    $take('setup');
    $driver->executeScript('document.querySelector(".mark").click()');
    $wait('document.querySelector(".production .day")');
    $take('productions');
} finally {
    $chrome->quit();
}
