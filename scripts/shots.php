<?php

declare(strict_types=1);

// Takes a picture of each main view at 1280 by 800, signed in as the demo's assistant.

require __DIR__.'/../vendor/autoload.php';

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\Chrome;

$chrome = Chrome::start();
$driver = $chrome->driver;
$press = static fn (string $key) => (new WebDriverActions($driver))->sendKeys(null, $key)->perform();
$wait = static function (string $condition) use ($driver): void {
    for ($end = microtime(true) + 20; microtime(true) < $end; usleep(50_000)) {
        if ($driver->executeScript("return Boolean($condition)")) {
            return;
        }
    }
    fwrite(STDERR, "Not seen: $condition\n");
};
// Pictures, fonts and waveforms have come when nothing is loading and two frames were drawn since.
$settle = static fn () => $driver->executeAsyncScript('const done = arguments[0]; Promise.all([document.fonts.ready, ...[...document.images].filter((one) => !one.complete).map((one) => new Promise((ready) => { one.onload = one.onerror = ready }))]).then(() => setTimeout(() => requestAnimationFrame(() => requestAnimationFrame(done)), 700))');
$take = static function (string $name) use ($driver, $settle): void {
    $driver->manage()->timeouts()->setScriptTimeout(20);
    $settle();
    $driver->takeScreenshot(dirname(__DIR__)."/docs/screenshots/$name.png");
    echo "docs/screenshots/$name.png\n";
};
$playing = 'document.querySelector("video")?.readyState >= 2 && document.querySelector("[data-frame]")?.dataset.frame !== ""';
try {
    $driver->get((string) getenv('APP_URL'));
    $wait('document.querySelector("input[name=email]")');
    $take('sign-in');
    $driver->findElement(WebDriverBy::name('email'))->sendKeys('rosa@lowwater.test');
    $driver->findElement(WebDriverBy::name('password'))->sendKeys('tide-mill'.WebDriverKeys::ENTER);
    $wait('document.querySelector(".points")');
    $take('day');
    $press('2');
    $wait('document.querySelector(".card")');
    $take('cards');
    $press('3');
    $wait($playing);
    for ($row = 0; $row < 4; $row++) {
        $press(WebDriverKeys::ARROW_DOWN);
    }
    $wait($playing);
    $take('log');
    $press('4');
    $wait('document.querySelector(".placed")');
    for ($clip = 0; $clip < 4; $clip++) {
        $press(WebDriverKeys::ARROW_RIGHT);
    }
    $wait($playing);
    $take('lineup');
    $press('5');
    $wait('document.querySelector(".row img")');
    $press(WebDriverKeys::ARROW_DOWN);
    $wait($playing);
    $take('bins');
    $press('6');
    $wait('document.querySelector(".reels")');
    $take('screening');
    $press(WebDriverKeys::ENTER);
    $wait($playing);
    $wait('Number(document.querySelector(".room").dataset.frame) > 60');
    $press('k');
    $take('room');
    $press(WebDriverKeys::ESCAPE);
    $wait('document.querySelector(".reels")');
    $press('8');
    $wait('document.querySelector(".choose")');
    $take('handoff');
    $press('?');
    $wait('document.querySelector(".ant-modal")');
    $take('keys');
} finally {
    $chrome->quit();
}
