<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Facebook\WebDriver\Exception\ElementClickInterceptedException;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\ScriptTimeoutException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\AssertionFailedError;
use PHPUnit\Framework\TestCase;

/** One person at one screen of 1280 by 800, with real keys and clicks, against the running server, workers and database. */
abstract class BrowserTestCase extends TestCase
{
    /** Seconds. A busy machine of two cores has been seen to take twenty for what takes one; the limit only ends a fault. */
    private const PATIENCE = 45.0;

    /** Seconds that it is waited for others to give the processors back. */
    private const CALM = 60;

    private static ?Chrome $chrome = null;

    /** Where the day lies that {@see TestDay} made, for whoever comes after. */
    protected static ?string $testDay = null;

    public static function tearDownAfterClass(): void
    {
        self::$chrome?->quit();
        self::$chrome = null;
        parent::tearDownAfterClass();
    }

    protected function chrome(): Chrome
    {
        return self::$chrome ??= Chrome::start();
    }

    protected function onNotSuccessfulTest(\Throwable $trouble): never
    {
        $folder = getenv('CARTELLA_VAR') . '/logs';
        if (self::$chrome !== null && is_dir($folder)) {
            $name = $folder . '/' . preg_replace('/\W+/', '-', static::class . '-' . $this->nameWithDataSet()) . '.png';
            self::$chrome->driver->takeScreenshot($name);
            fwrite(STDERR, "\nThe page as it was: $name\n");
        }
        parent::onNotSuccessfulTest($trouble);
    }

    protected static function address(string $path = '/'): string
    {
        return rtrim((string) getenv('APP_URL'), '/') . $path;
    }

    protected static function bench(): string
    {
        return getenv('CARTELLA_BENCH') ?: getenv('CARTELLA_VAR') . '/volumes';
    }

    protected function signIn(string $who): void
    {
        $this->comeIn($who);
        $this->see('nav.spine');
        // It opens the newest day; what is tested of a day is the first one, unless a test makes its own.
        $this->see('.date');
        $this->until(
            fn(): bool => (bool) $this->js(
                'const first = document.querySelector(".date"); if (!first.classList.contains("on")) first.click(); ' .
                    'return first.classList.contains("on")',
            ),
            'the first day does not open',
        );
    }

    /** Through the door, to whatever opens behind it for somebody. */
    protected function comeIn(string $who): void
    {
        // An answer that is still on its way to the last person's page brings their cookie back; then it is done again.
        $this->until(
            function (): bool {
                $this->open('/favicon.svg');
                $this->chrome()->driver->manage()->deleteAllCookies();
                $this->open('/');

                return (bool) $this->js(
                    'return new Promise((answer) => { const look = () => (document.querySelector("input[name=email]") ? ' .
                        'answer(true) : document.querySelector("nav.spine, .productions h1") ? answer(false) : setTimeout(look, ' .
                        '30)); look() })',
                );
            },
            'the last person is not signed out',
            30,
        );
        $this->find('input[name=email]')->sendKeys($who . '@lowwater.test');
        $this->find('input[name=password]')->sendKeys("tide-mill\u{E007}");
    }

    protected function open(string $path): void
    {
        $this->chrome()->driver->get(self::address($path));
    }

    /** Presses keys as a person does, whatever has the focus. */
    protected function press(string ...$keys): void
    {
        foreach ($keys as $key) {
            // A dialog that is closing still holds the focus for a moment, and takes no key.
            for ($end = microtime(true) + 5; ; usleep(50_000)) {
                try {
                    (new WebDriverActions($this->chrome()->driver))->sendKeys(null, $key)->perform();
                    break;
                } catch (ElementNotInteractableException $trouble) {
                    microtime(true) < $end || throw $trouble;
                }
            }
        }
    }

    protected function find(string $css): RemoteWebElement
    {
        return $this->chrome()->driver->findElement(WebDriverBy::cssSelector($css));
    }

    protected function click(string $css, ?string $text = null): void
    {
        $this->until(function () use ($css, $text): bool {
            foreach ($this->chrome()->driver->findElements(WebDriverBy::cssSelector($css)) as $element) {
                if (($text === null || str_contains($element->getText(), $text)) && $element->isDisplayed() && $element->isEnabled()) {
                    $element->click();

                    return true;
                }
            }

            return false;
        }, "nothing to click: $css $text");
    }

    /** Chooses a card on the bench; its tile may slide away under the pointer while others come in. */
    protected function chooseCard(string $roll): void
    {
        $this->until(function () use ($roll): bool {
            $this->click('.card', $roll);

            return str_starts_with($this->text('aside h2'), $roll);
        }, "card $roll is not chosen");
    }

    /** Waits until an element is there, and with that text if one is given. */
    protected function see(string $css, ?string $text = null, float $seconds = self::PATIENCE): void
    {
        $this->until(
            fn(): bool => (bool) $this->js(
                'return [...document.querySelectorAll(arguments[0])].some((one) => one.getClientRects().length > 0 ' .
                    '&& (arguments[1] === null || one.textContent.includes(arguments[1])))',
                $css,
                $text,
            ),
            "not seen: $css $text",
            $seconds,
        );
    }

    protected function seeNo(string $css, float $seconds = self::PATIENCE): void
    {
        $this->until(
            fn(): bool => (bool) $this->js('return document.querySelector(arguments[0]) === null', $css),
            "still there: $css",
            $seconds,
        );
    }

    protected function text(string $css): string
    {
        return (string) $this->js('return document.querySelector(arguments[0])?.textContent.trim() ?? ""', $css);
    }

    protected function js(string $script, mixed ...$arguments): mixed
    {
        return $this->chrome()->driver->executeScript($script, $arguments);
    }

    protected function jsAsync(string $script, int $seconds, mixed ...$arguments): mixed
    {
        $this->chrome()->driver->manage()->timeouts()->setScriptTimeout($seconds);

        return $this->chrome()->driver->executeAsyncScript($script, $arguments);
    }

    /** Asks again until the answer is yes; the limit is there so that a fault ends, not to time anything. */
    protected function until(callable $question, string $otherwise, float $seconds = self::PATIENCE): void
    {
        $end = microtime(true) + $seconds;
        while (true) {
            try {
                if ($question()) {
                    $this->addToAssertionCount(1);

                    return;
                }
            } catch (StaleElementReferenceException | ElementClickInterceptedException) {
                // The page drew itself again in between.
            }
            if (microtime(true) > $end) {
                self::fail($otherwise . ' (at ' . $this->chrome()->driver->getCurrentURL() . ")\n" . $this->lastRequests());
            }
            usleep(50_000);
        }
    }

    /**
     * Catches what goes to the sound device from now on, for both ears; before the page plays for the first time. `window.ears()` gives
     * the loudest sample of each since it was asked last.
     */
    protected function tapSound(): void
    {
        $this->js((string) file_get_contents(__DIR__ . '/js/tap.js'));
    }

    /** Reads the numbers that pictures carry from now on, and what one place shows when digits go down (Support/js/numbers.js). */
    protected function readNumbers(int $bits, ?string $place = null): void
    {
        $this->js((string) file_get_contents(__DIR__ . '/js/numbers.js'), $bits, ...$place === null ? [] : [$place]);
    }

    /** Where the engine lies by itself. */
    protected static function engine(): string
    {
        $manifest = json_decode((string) file_get_contents(__DIR__ . '/../../../public/build/manifest.json'), true);

        return '/build/' . $manifest['ui/player/engine/index.ts']['file'];
    }

    /**
     * Holds something that plays in real time to what it asks. Where it failed while others had the processors it is tried again when
     * they are back; where they never are, it is skipped with how much they had: neither yes nor no can be said then.
     *
     * @param  callable(): void  $test
     */
    protected function inRealTime(callable $test): void
    {
        $taken = 0.0;
        for ($try = 0; $try < 4; $try++) {
            $before = Machine::now();
            try {
                $test();

                return;
            } catch (AssertionFailedError | ScriptTimeoutException $failure) {
                $taken = $before->takenSince();
                if ($taken < Machine::TAKEN) {
                    throw $failure;
                }
            }
            $this->awaitCalm();
        }
        self::markTestSkipped(sprintf('Others had %d %% of the processors: what plays in real time could not be looked at.', 100 * $taken));
    }

    /** Until nobody takes the processors away for some seconds, or that takes too long. */
    private function awaitCalm(): void
    {
        $end = microtime(true) + self::CALM;
        do {
            $before = Machine::now();
            $this->jsAsync('setTimeout(arguments[0], 5000)', 20);
        } while ($before->takenSince() >= Machine::TAKEN && microtime(true) < $end);
    }

    /**
     * Runs one of the scripts beside this file in the page: it gets `engine` (the module), `given`, and `done`.
     *
     * @param  array<string, mixed>  $given
     */
    protected function measure(string $script, array $given, int $seconds = 60): mixed
    {
        $answer = $this->jsAsync(
            'const [address, given, done] = arguments; const fail = (trouble) => done({ trouble: String(trouble?.stack ?? trouble) });' .
                "import(address).then(async (engine) => {\n" .
                file_get_contents(__DIR__ . '/js/lib.js') .
                file_get_contents(__DIR__ . "/js/$script.js") .
                "\n}).catch(fail)",
            $seconds,
            self::engine(),
            $given,
        );
        if (is_array($answer) && isset($answer['trouble'])) {
            self::fail("$script: " . $answer['trouble']);
        }

        return $answer;
    }

    /** What the page asked of the server last, for whoever has only the log of a run that failed. */
    private function lastRequests(): string
    {
        return (string) $this->js(
            'return performance.getEntriesByType("resource").filter((one) => one.initiatorType === "fetch").slice(-8)' .
                '.map((one) => `${Math.round(one.startTime)} ms +${Math.round(one.duration)} ${one.responseStatus} ${one.name}`)' .
                '.join("\n") + `\n${Math.round(performance.now())} ms: ${document.querySelector(".ant-message")?.textContent ?? ""}`',
        );
    }

    /** Errors that the page wrote to its console since this was last asked. @return list<string> */
    protected function consoleErrors(): array
    {
        return array_values(
            array_map(
                static fn(array $entry): string => $entry['message'],
                array_filter(
                    $this->chrome()->driver->manage()->getLog('browser'),
                    static fn(array $entry): bool => $entry['level'] === 'SEVERE',
                ),
            ),
        );
    }

    /** Mean brightness and its spread of what the video shows now, 0 to 255. @return array{float, float} */
    protected function picture(): array
    {
        return $this->js(
            <<<'JS'
            const video = document.querySelector('.player canvas.shown, .room .screen canvas')
            const canvas = document.createElement('canvas')
            canvas.width = 64; canvas.height = 36
            const pen = canvas.getContext('2d')
            pen.drawImage(video, 0, 0, 64, 36)
            const data = pen.getImageData(0, 0, 64, 36).data
            let sum = 0, square = 0
            for (let i = 0; i < data.length; i += 4) { const y = (data[i] + data[i + 1] + data[i + 2]) / 3; sum += y; square += y * y }
            const n = data.length / 4
            return [sum / n, Math.sqrt(square / n - (sum / n) ** 2)]
            JS
            ,
        );
    }
}
