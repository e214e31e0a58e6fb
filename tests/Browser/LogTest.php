<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\Chrome;
use Tests\Browser\Support\SixtyClips;

/** A day of sixty clips without a slate, logged, corrected, named and filled from a table, by one person and by two. */
final class LogTest extends BrowserTestCase
{
    /** 60 clips in 10 minutes leave 10 s a clip; at a slow typist's 2 keys a second that is 20 keys. The log asks for far fewer. */
    private const KEYS_PER_CLIP = 8;

    private static string $day = '';

    public static function setUpBeforeClass(): void
    {
        self::$day = SixtyClips::insert(SixtyClips::database(), 'Low Water');
    }

    public static function tearDownAfterClass(): void
    {
        SixtyClips::remove(SixtyClips::database());
        parent::tearDownAfterClass();
    }

    private function type(string $text): int
    {
        $this->press($text);

        return mb_strlen($text);
    }

    public function test_sixty_clips_are_logged_with_a_few_keys_each(): void
    {
        $this->signIn('rosa');
        $this->open(self::$day . '/log');
        $this->see('.row.clip', 'A050C001');
        $keys = 1;
        $this->press('b');
        foreach (SixtyClips::lines() as $at => $line) {
            $keys += $this->type($line) + 1;
            $this->press(WebDriverKeys::ENTER);
            $left = 59 - $at;
            $this->until(
                fn(): bool => $this->js(
                    'return document.querySelector("#log-line").value === "" && document.querySelectorAll(".row.clip ' .
                        '.faint").length <= arguments[0]',
                    max($left, 0),
                ),
                "clip $at is not logged: " . $this->text('.says'),
            );
        }
        self::assertSame(SixtyClips::expected(), SixtyClips::logged(SixtyClips::database()));
        self::assertLessThan(self::KEYS_PER_CLIP, $keys / 60, sprintf('%.1f keys a clip', $keys / 60));
        $this->press(WebDriverKeys::ESCAPE);
    }

    #[Depends('test_sixty_clips_are_logged_with_a_few_keys_each')]
    public function test_words_are_typed_into_their_cells_filled_down_and_taken_back_after_a_reload(): void
    {
        $this->open(self::$day . '/log');
        $this->click('.row.take [data-column=size]', 'Medium');
        $this->type('Insert');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.row.take [data-column=size]', 'Insert');
        $this->press(
            WebDriverKeys::ARROW_UP,
            WebDriverKeys::SHIFT . WebDriverKeys::ARROW_DOWN . WebDriverKeys::ARROW_DOWN . WebDriverKeys::SHIFT,
            WebDriverKeys::CONTROL . 'd' . WebDriverKeys::CONTROL,
        );
        $count = fn(): int => (int) $this->js(
            'return [...document.querySelectorAll(".row.take [data-column=size]")].filter((one) => ' .
                'one.textContent.trim() === "Insert").length',
        );
        $this->until(fn(): bool => $count() === 3, 'it is not filled down');
        $this->open(self::$day . '/log');
        $this->see('.row.take [data-column=size]', 'Insert');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(fn(): bool => $count() === 1, 'the filling is not taken back');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(fn(): bool => $count() === 0, 'the typing is not taken back');
    }

    #[Depends('test_sixty_clips_are_logged_with_a_few_keys_each')]
    public function test_a_range_goes_to_a_spreadsheet_and_comes_back(): void
    {
        $this->open(self::$day . '/log');
        $this->click('.row.take [data-column=description]', 'Mara unlocks the wheel');
        $this->press(WebDriverKeys::SHIFT . WebDriverKeys::ARROW_DOWN . WebDriverKeys::ARROW_RIGHT . WebDriverKeys::SHIFT);
        $copied = $this->js(
            'const data = new DataTransfer(); document.dispatchEvent(new ClipboardEvent("copy", { clipboardData: ' .
                'data, bubbles: true, cancelable: true })); return data.getData("text/plain")',
        );
        self::assertSame("Mara unlocks the wheel\tWide\nMara unlocks the wheel\tWide", $copied);
        $this->js(
            'const data = new DataTransfer(); data.setData("text/plain", arguments[0]); ' .
                'document.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, ' .
                'cancelable: true }))',
            "\"Mara, \"\"early\"\"\"\tClose\r\nMara waits\tWide\r\n",
        );
        $this->see('.row.take .what', 'Mara, "early"');
        $this->see('.row.take .what', 'Mara waits');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(
            fn(): bool => !$this->js('return document.querySelector(".sheet").textContent.includes("Mara waits")'),
            'the paste is not one step',
        );
    }

    #[Depends('test_sixty_clips_are_logged_with_a_few_keys_each')]
    public function test_a_colleague_is_seen_where_they_stand_and_nothing_is_lost_when_both_type(): void
    {
        $this->open(self::$day . '/log');
        $other = Chrome::start();
        try {
            $driver = $other->driver;
            $driver->get(self::address());
            $seen = function (string $condition) use ($driver): void {
                $this->until(
                    static fn(): bool => (bool) $driver->executeScript("return Boolean($condition)"),
                    "the colleague does not see $condition",
                );
            };
            $seen('document.querySelector("input[name=email]")');
            $driver->findElement(WebDriverBy::cssSelector('input[name=email]'))->sendKeys('adaeze@lowwater.test');
            $driver->findElement(WebDriverBy::cssSelector('input[name=password]'))->sendKeys("tide-mill\u{E007}");
            $seen('document.body.textContent.includes("Low Water")');
            $driver->get(self::address(self::$day . '/log'));
            $seen('document.querySelector(".row.take")');
            $driver->findElement(WebDriverBy::cssSelector('.row.take [data-column=description]'))->click();
            $this->see('.row .here', 'AL');
            // Both begin to type in the same cell; the colleague is done first.
            $this->click('.row.take [data-column=description]', 'Mara unlocks the wheel');
            $this->press(WebDriverKeys::ENTER);
            $this->see('input.edit');
            $driver->getKeyboard()->sendKeys('Theirs' . WebDriverKeys::ENTER);
            $seen('document.querySelector(".row.take .what").textContent.includes("Theirs")');
            $this->type('Mine');
            $this->press(WebDriverKeys::ENTER);
            $this->see('.both dd', 'Mine');
            $this->see('.both dd', 'Theirs');
            $this->press(WebDriverKeys::ENTER);
            $this->see('.row.take .what', 'Mine');
            $seen('document.querySelector(".row.take .what").textContent.includes("Mine")');
            $this->whatOthersAddMovesNoRow($driver);
        } finally {
            $other->quit();
        }
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->see('.row.take .what', 'Theirs');
    }

    /** A colleague logs a take that stands above those in sight, and takes it back. */
    private function whatOthersAddMovesNoRow(RemoteWebDriver $colleague): void
    {
        $scroll = 'let at = document.querySelector(".row.take"); while (at.scrollHeight <= at.clientHeight) at = at.parentElement;';
        $this->js("$scroll at.scrollTop = Math.floor(at.scrollHeight / 2 / 31) * 31");
        $row = '[...document.querySelectorAll(".row.take")].find((row) => row.getBoundingClientRect().top > 300)';
        $this->until(fn(): bool => $this->js("return Boolean($row)"), 'no row is in sight');
        [$words, $top, $long] = $this->js(
            "$scroll const row = $row; return [row.innerText, row.getBoundingClientRect().top, at.scrollHeight]",
        );
        $say = static fn(string $path, string $body): int => $colleague->executeAsyncScript(
            <<<'JS'
            const [path, body, done] = arguments, parts = location.pathname.split('/')
            const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1])
            fetch(`/api/productions/${parts[1]}/${path.replace('DAY', parts[2])}`, {
              method: 'POST', body, headers: { 'Content-Type': 'application/json', Accept: 'application/json', 'X-XSRF-TOKEN': token },
            }).then((answer) => done(answer.status))
            JS
            ,
            [$path, $body],
        );
        self::assertSame(200, $say('days/DAY/log/line', '{"text":"1/1","row":null}'));
        $this->until(fn(): bool => $this->js("$scroll return at.scrollHeight") > $long, 'the take does not come');
        $now = fn(): array => $this->js(
            "const row = [...document.querySelectorAll('.row.take')].find((one) => one.innerText === arguments[0]);" .
                'return row === undefined ? [] : [row.getBoundingClientRect().top]',
            $words,
        );
        self::assertEqualsWithDelta([$top], $now(), 1.0);
        self::assertSame(200, $say('undo', '{}'));
        $this->until(fn(): bool => $this->js("$scroll return at.scrollHeight") === $long, 'the take does not go');
        self::assertEqualsWithDelta([$top], $now(), 1.0);
        $this->js("$scroll at.scrollTop = 0");
    }

    #[Depends('test_sixty_clips_are_logged_with_a_few_keys_each')]
    public function test_notes_of_others_are_mapped_looked_at_brought_in_and_taken_back(): void
    {
        $path = sys_get_temp_dir() . '/cartella-notes-' . getmypid() . '.csv';
        file_put_contents($path, "Scene;Setup;Take;Remarks\n3;A;2 (circled);gull\n;;3;\n3;I;1;\n");
        $this->open(self::$day . '/log');
        $this->see('.row.take');
        $this->press('u');
        $this->see('.bring', 'Drop a table');
        $this->chrome()
            ->driver->findElement(WebDriverBy::cssSelector('input[type=file][accept*=csv]'))
            ->setFileDetector(new LocalFileDetector())
            ->sendKeys($path);
        $this->see('.raw td', '2 (circled)');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.tabs button.on', 'new');
        $this->click('.tabs button', 'left out');
        $this->see('.list td', 'B4');
        $this->click('.ant-btn-primary', 'Bring in');
        $this->until(
            fn(): bool => (bool) $this->js(
                'return [...document.querySelectorAll(".row.take")].some((row) => ' .
                    'row.querySelector(".su").textContent === "3A" && row.querySelector(".circled"))',
            ),
            'it is not brought in',
        );
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(
            fn(): bool => !$this->js(
                'return [...document.querySelectorAll(".row.take")].some((row) => ' .
                    'row.querySelector(".su").textContent === "3A" && row.querySelector(".circled"))',
            ),
            'it is not taken back',
        );
        unlink($path);
    }

    #[Depends('test_sixty_clips_are_logged_with_a_few_keys_each')]
    public function test_names_are_seen_before_they_are_given(): void
    {
        $this->press('a');
        $this->see('.ant-modal td b', '3-01 A');
        $this->click('.ant-btn-primary', 'Give 60 names');
        $this->see('.row.take .clip', '3-01 A');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->see('.row.take .clip', 'A050C001');
    }
}
