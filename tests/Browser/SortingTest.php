<?php

declare(strict_types=1);

namespace Tests\Browser;

use Cartella\Core\Tests\Support\WavBuilder;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\Chrome;

/** Files of no card on their way into the bins, a recording of six channels, and two people in one bin. */
final class SortingTest extends BrowserTestCase
{
    private const CHANNELS = ['boom', 'Mara', 'Tobias', 'Ines', 'wheel', 'water'];

    private const SECONDS = 20;

    /** Of the first channel; each further one is by as much louder. */
    private const LOUD = 0.1;

    private static string $folder = '';

    public static function setUpBeforeClass(): void
    {
        self::$folder = sys_get_temp_dir() . '/cartella-imports-' . bin2hex(random_bytes(4));
        foreach (['Music', 'SFX', 'Titles'] as $name) {
            mkdir(self::$folder . "/$name", 0777, true);
        }
        $samples = '';
        for ($n = 0; $n < 48_000 * self::SECONDS; $n++) {
            foreach (self::CHANNELS as $channel => $name) {
                $samples .= pack('v', ((int) (32_767 * self::LOUD * ($channel + 1) * sin($n * 0.05 * ($channel + 1)))) & 0xffff);
            }
        }
        $tracks = '';
        foreach (self::CHANNELS as $channel => $name) {
            $tracks .= sprintf(
                '<TRACK><CHANNEL_INDEX>%1$d</CHANNEL_INDEX><INTERLEAVE_INDEX>%1$d</INTERLEAVE_INDEX><NAME>%2$s</NAME></TRACK>',
                $channel + 1,
                $name,
            );
        }
        WavBuilder::pcm(0, count(self::CHANNELS), 16, 48_000, $samples)
            ->withIxml('<TRACK_LIST><TRACK_COUNT>6</TRACK_COUNT>' . $tracks . '</TRACK_LIST>')
            ->write(self::$folder . '/Music/six voices.wav');
        WavBuilder::pcm(48_000)->write(self::$folder . '/SFX/gate creak.wav');
        $card = imagecreatetruecolor(64, 36);
        imagepng($card, self::$folder . '/Titles/end card.png');
        file_put_contents(self::$folder . '/letter.txt', 'not media');
    }

    public static function tearDownAfterClass(): void
    {
        exec('rm -rf ' . escapeshellarg(self::$folder));
        parent::tearDownAfterClass();
    }

    public function test_a_folder_that_is_brought_in_lies_sorted_in_the_bins_of_its_kinds(): void
    {
        $this->signIn('rosa');
        $this->click('.date', 'Day 1');
        $this->tapSound();
        $this->press('5');
        $this->see('.tree .bin', 'Music');
        $this->chrome()->driver->findElement(WebDriverBy::cssSelector('.folder-box'))->sendKeys(self::$folder);
        $this->see('.ant-modal', 'Bring in 3 files');
        $this->see('.ant-modal .note', '1 file cannot come in');
        $this->press(WebDriverKeys::ENTER);
        foreach (['Music' => 'six voices', 'Effects' => 'gate creak', 'Graphics' => 'end card'] as $bin => $name) {
            $this->click('.tree .bin', $bin);
            $this->see('.rows .row', $name, 60);
        }
        $this->seeNo('.coming', 60);
        // The same files once more are told apart from new ones.
        $this->chrome()->driver->findElement(WebDriverBy::cssSelector('.folder-box'))->sendKeys(self::$folder);
        $this->see('.ant-modal .note', '3 files of the same name and size are here already');
        $this->press(WebDriverKeys::ESCAPE);
    }

    #[Depends('test_a_folder_that_is_brought_in_lies_sorted_in_the_bins_of_its_kinds')]
    public function test_channels_of_a_recording_are_split_under_their_names_and_each_is_heard_alone(): void
    {
        $this->click('.tree .bin', 'Music');
        $this->click('.rows .row', 'six voices');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.clip-page h1', 'six voices');
        $this->press(WebDriverKeys::ALT . 'c' . WebDriverKeys::NULL);
        foreach (self::CHANNELS as $name) {
            $this->see('.clip-page .pieces .sub', "six voices $name");
        }
        foreach (self::CHANNELS as $channel => $name) {
            $this->press(WebDriverKeys::ALT . ($channel + 1) . WebDriverKeys::NULL);
            $this->press(WebDriverKeys::HOME, ' ');
            $this->until(fn(): bool => (bool) $this->js('return window.taps.length > 0'), 'nothing reaches the device');
            $before = (float) $this->js('return window.deviceTime()');
            $this->until(fn(): bool => $this->js('return window.deviceTime()') > $before + 0.6, 'it does not play');
            // Where a machine stands still the sound breaks off, and that rings: it is listened to until it is whole.
            $this->js('window.ears()');
            $this->until(
                fn(): bool => abs(max($this->js('return window.ears()')) - self::LOUD * ($channel + 1)) < self::LOUD / 4,
                "$name is not heard alone",
            );
            $this->press('k', WebDriverKeys::ALT . ($channel + 1) . WebDriverKeys::NULL);
        }
        $this->press(WebDriverKeys::ESCAPE);
        $this->see('.middle .bar', 'Music');
    }

    #[Depends('test_a_folder_that_is_brought_in_lies_sorted_in_the_bins_of_its_kinds')]
    public function test_two_people_in_one_bin_see_each_other_and_take_back_only_their_own(): void
    {
        $this->press('n');
        $this->see('.ant-modal input');
        $this->press(...mb_str_split('Both of us'), ...[WebDriverKeys::ENTER]);
        $this->see('.middle .bar', 'Both of us');
        $address = (string) $this->js('return location.pathname + location.search');
        $other = Chrome::start();
        try {
            $driver = $other->driver;
            $seen = function (string $condition) use ($driver): void {
                $this->until(
                    static fn(): bool => (bool) $driver->executeScript("return Boolean($condition)"),
                    "the colleague does not see $condition",
                );
            };
            $driver->get(self::address());
            $seen('document.querySelector("input[name=email]")');
            $driver->findElement(WebDriverBy::cssSelector('input[name=email]'))->sendKeys('adaeze@lowwater.test');
            $driver->findElement(WebDriverBy::cssSelector('input[name=password]'))->sendKeys("tide-mill\u{E007}");
            $seen('document.body.textContent.includes("Low Water")');
            $driver->get(self::address($address));
            $seen('document.querySelector(".empty")?.textContent.includes("This bin is empty")');

            // One puts a take into it, the other sees it and puts another one beside it.
            $this->put('Scene 3', 0);
            $seen('document.querySelectorAll(".rows .row[data-what]").length === 1');
            self::putAs($driver, 'Scene 7', 0, $seen);
            $this->click('.tree .bin', 'Both of us');
            $this->until(
                fn(): bool => $this->js('return document.querySelectorAll(".rows .row[data-what]").length') === 2,
                'theirs does not come',
            );

            // A word that the colleague writes is read here.
            $driver->executeScript(
                'document.querySelectorAll(".tree .bin").forEach((one) => one.textContent.includes("Both of us") && one.click())',
            );
            $seen('document.querySelectorAll(".rows .row[data-what]").length === 2');
            $driver->getKeyboard()->sendKeys('e');
            $seen('document.activeElement.classList.contains("box")');
            $driver->getKeyboard()->sendKeys('Their words' . WebDriverKeys::ENTER);
            $this->see('.rows .row', 'Their words');

            $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
            $seen('document.querySelectorAll(".rows .row[data-what]").length === 1');
            $seen('document.querySelector(".rows .row[data-what] .slate b").textContent.startsWith("7")');
        } finally {
            $other->quit();
        }
        $this->until(fn(): bool => $this->js('return document.querySelectorAll(".rows .row[data-what]").length') === 1, 'theirs went, too');
    }

    private function put(string $bin, int $row): void
    {
        $this->click('.tree .bin', $bin);
        $this->until(fn(): bool => str_contains($this->text('.middle .bar b'), $bin), "$bin does not open");
        $this->see('.rows .row[data-what=take]');
        $this->js('document.querySelectorAll(".rows .row[data-what]")[arguments[0]].click()', $row);
        $this->press('p');
        $this->see('.picks');
        $this->click('.picks .pick', 'Both of us');
        $this->seeNo('.ant-modal-wrap:not([style*="display: none"])');
    }

    /** @param  callable(string): void  $seen */
    private static function putAs(RemoteWebDriver $driver, string $bin, int $row, callable $seen): void
    {
        $driver->executeScript(
            '[...document.querySelectorAll(".tree .bin")].find((one) => one.textContent.includes(arguments[0])).click()',
            [$bin],
        );
        $seen(
            "document.querySelector('.middle .bar b').textContent.includes('$bin') && document.querySelector('.rows .row[data-what=take]')",
        );
        $driver->executeScript('document.querySelectorAll(".rows .row[data-what]")[arguments[0]].click()', [$row]);
        $driver->getKeyboard()->sendKeys('p');
        $seen('document.querySelector(".picks .pick")');
        $driver->executeScript(
            '[...document.querySelectorAll(".picks .pick")].find((one) => one.textContent.includes("Both of us")).click()',
        );
        $seen('!document.querySelector(".ant-modal-wrap:not([style*=\"display: none\"])")');
    }
}
