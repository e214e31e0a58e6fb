<?php

declare(strict_types=1);

// A signed-in page of the bench's own server in Chromium: the browser, and a wait for a condition of the page.

use Facebook\WebDriver\WebDriverBy;
use Tests\Browser\Support\Chrome;

return static function (string $base, string $person = 'bench@lowwater.test'): array {
    $chrome = Chrome::start();
    $until = static function (string $condition) use ($chrome): void {
        for ($end = microtime(true) + 30; !$chrome->driver->executeScript("return Boolean($condition)"); usleep(20_000)) {
            if (microtime(true) > $end) {
                $picture = getenv('LOGS') . '/not-seen.png';
                $chrome->driver->takeScreenshot($picture);
                throw new RuntimeException("Not seen: $condition (the page as it was: $picture)");
            }
        }
    };
    try {
        // A page of hundreds of waves asks for more than a browser remembers of itself.
        $chrome->driver->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
            'cmd' => 'Page.addScriptToEvaluateOnNewDocument',
            'params' => ['source' => 'performance.setResourceTimingBufferSize(5000)'],
        ]);
        $chrome->driver->get($base);
        $until('document.querySelector("input[name=email]")');
        $chrome->driver->findElement(WebDriverBy::cssSelector('input[name=email]'))->sendKeys($person);
        $chrome->driver->findElement(WebDriverBy::cssSelector('input[name=password]'))->sendKeys("tide-mill\u{E007}");
        $until('document.querySelector("nav.spine")');
    } catch (Throwable $trouble) {
        $chrome->quit();
        throw $trouble;
    }

    return [$chrome, $until];
};
