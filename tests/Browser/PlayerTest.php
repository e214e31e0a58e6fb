<?php

declare(strict_types=1);

namespace Tests\Browser;

use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Timecode;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\TestCards;
use Tests\Browser\Support\TestDay;

/** The player shows the frame that it says, at every rate, and its sound stays with the picture. */
final class PlayerTest extends BrowserTestCase
{
    use TestDay;

    private static bool $isOpen = false;

    protected function setUp(): void
    {
        parent::setUp();
        if (!self::$isOpen) {
            $this->openTestDay();
        }
        self::$isOpen = true;
    }

    /** The frame number that the picture itself shows. */
    private function shown(): int
    {
        return (int) $this->js(
            <<<'JS'
            const shown = document.querySelector('.player canvas.shown')
            const canvas = document.createElement('canvas')
            canvas.width = 480; canvas.height = 16
            const pen = canvas.getContext('2d')
            pen.drawImage(shown, 0, 100, shown.width, 20, 0, 0, 480, 16)
            let frame = 0
            for (let bit = 0; bit < arguments[0]; bit++) {
              const at = Math.floor(480 * (bit + 0.5) / arguments[0])
              if (pen.getImageData(at, 8, 1, 1).data[1] > 127) frame += 2 ** bit
            }
            return frame
            JS
            ,
            TestCards::BITS,
        );
    }

    private function openClip(string $name): void
    {
        $this->open(self::$testDay . '/bins?clip=' . $this->clipSheet($name)['ulid']);
        $this->see('aside h2', $name);
        $this->until(
            fn(): bool => !in_array($this->js('return document.querySelector(".player")?.dataset.frame'), ['', null], true),
            "$name does not load",
        );
    }

    private function waitForFrame(int $frame): void
    {
        $this->until(
            fn(): bool => $this->js('return document.querySelector(".player").dataset.frame') === (string) $frame,
            "frame $frame does not come; it shows " . $this->js('return document.querySelector(".player").dataset.frame'),
        );
    }

    /** @return array<string, array{string, string, string}> */
    public static function rates(): array
    {
        return [
            '23.976' => ['num24', '23.976', '10:00:00:00'],
            '25' => ['num25', '25', '23:59:55:00'],
            '29.97 drop frame' => ['num30', '29.97df', '00:00:55;00'],
            '29.97' => ['num30n', '29.97', '00:00:55:00'],
            '50' => ['num50', '50', '12:00:00:00'],
            '59.94' => ['num60', '59.94', '01:00:00:00'],
        ];
    }

    #[DataProvider('rates')]
    public function test_after_n_steps_the_picture_is_exactly_n_frames_on_and_the_label_is_the_clips_own(
        string $clip,
        string $rate,
        string $start,
    ): void {
        $rate = FrameRate::parse($rate);
        $first = Timecode::parse($start, $rate);
        $this->openClip($clip);
        $this->waitForFrame(0);
        $frame = 0;
        foreach ([1, 1, 1, 5, 30, -2, -7, 60, 1] as $steps) {
            $this->press(...array_fill(0, abs($steps), $steps > 0 ? '.' : ','));
            $frame += $steps;
            $this->waitForFrame($frame);
            self::assertSame($frame, $this->shown(), 'the decoded picture');
            self::assertSame(Timecode::label($first + $frame, $rate), $this->text('[data-testid=timecode]'));
        }
        $this->press(WebDriverKeys::END);
        $this->waitForFrame(259);
        self::assertSame(259, $this->shown());
        $this->press('.', '.');
        $this->waitForFrame(259);
        $this->press(WebDriverKeys::HOME);
        $this->waitForFrame(0);
        self::assertSame(0, $this->shown());
    }

    #[DataProvider('rates')]
    public function test_stopping_in_the_middle_of_play_stands_on_the_frame_that_is_seen(string $clip): void
    {
        $this->openClip($clip);
        $this->press(' ');
        $this->until(fn(): bool => (int) $this->js('return document.querySelector(".player").dataset.frame') > 20, 'it does not play');
        $this->press('k');
        $this->until(fn(): bool => $this->js('return document.querySelector(".player").dataset.playing') === 'false', 'it does not stop');
        $this->until(
            fn(): bool => $this->shown() === (int) $this->js('return document.querySelector(".player").dataset.frame'),
            'label and picture do not agree',
        );
        $frame = $this->shown();
        $this->press('.', '.', '.');
        $this->waitForFrame($frame + 3);
        self::assertSame($frame + 3, $this->shown());
    }

    #[DataProvider('rates')]
    public function test_backwards_it_shows_each_frame_that_it_says_and_never_one_that_it_passed(string $clip): void
    {
        $this->openClip($clip);
        $this->press(WebDriverKeys::END);
        $this->waitForFrame(259);
        $seen = $this->jsAsync(
            <<<'JS'
            const [bits, done] = arguments
            const player = document.querySelector('.player'), canvas = document.querySelector('.player canvas.shown')
            const strip = document.createElement('canvas'); strip.width = 480; strip.height = 4
            const pen = strip.getContext('2d', { willReadFrequently: true }), seen = []
            const look = () => {
              pen.drawImage(canvas, 0, 100, canvas.width, 4, 0, 0, 480, 4)
              let frame = 0
              for (let bit = 0; bit < bits; bit++)
                if (pen.getImageData(Math.floor(480 * (bit + 0.5) / bits), 2, 1, 1).data[1] > 127) frame += 2 ** bit
              if (seen.at(-1) !== frame) seen.push(frame)
              if (frame < 180 || seen.length > 500) return done(seen)
              requestAnimationFrame(look)
            }
            window.dispatchEvent(new KeyboardEvent('keydown', { key: 'j' }))
            look()
            JS
            ,
            60,
            TestCards::BITS,
        );
        $this->press('k');
        self::assertSame(259, $seen[0]);
        $sorted = $seen;
        rsort($sorted);
        self::assertSame($sorted, $seen, 'no frame comes twice or out of order');
        self::assertGreaterThan(25, count($seen), 'it is not a slide show');
        $this->until(fn(): bool => $this->shown() === (int) $this->js('return document.querySelector(".player").dataset.frame'), 'label');
    }

    public function test_presses_double_a_held_key_does_not_and_a_held_step_crawls_until_it_is_let_go_of(): void
    {
        $this->openClip('num25');
        $this->waitForFrame(0);
        $key = fn(string $kind, string $key, bool $repeat = false) => $this->js(
            'window.dispatchEvent(new KeyboardEvent(arguments[0], { key: arguments[1], repeat: arguments[2] }))',
            $kind,
            $key,
            $repeat,
        );
        $speed = fn(): string => $this->text('.player .speed');
        $key('keydown', 'l');
        foreach ([1, 2, 3] as $_) {
            $key('keydown', 'l', true);
        }
        $this->until(fn(): bool => $this->js('return document.querySelector(".player").dataset.playing') === 'true', 'it does not play');
        self::assertSame('', $speed(), 'normal speed');
        $key('keydown', 'l');
        $this->until(fn(): bool => $speed() === '2x', 'a second press doubles');
        $key('keydown', 'k');
        $key('keydown', 'j');
        $this->until(fn(): bool => $speed() === '-0.25x', 'K with J creeps backwards');
        $key('keyup', 'j');
        $key('keyup', 'k');
        $this->until(fn(): bool => $this->js('return document.querySelector(".player").dataset.playing') === 'false', 'it goes on');
        foreach ([['.', '0.25x'], ['>', '0.5x']] as [$step, $crawl]) {
            $this->press(WebDriverKeys::HOME);
            $key('keydown', $step);
            $key('keydown', $step, true);
            $this->until(fn(): bool => $speed() === $crawl, "held it crawls at $crawl");
            $key('keyup', $step);
            $this->until(fn(): bool => $speed() === '', 'and ends');
        }
        $this->press(WebDriverKeys::HOME, '>', '>', '<');
        $this->waitForFrame(5);
        self::assertSame(5, $this->shown());
    }

    public function test_a_typed_timecode_is_gone_to_and_one_outside_is_refused_in_a_sentence(): void
    {
        $this->openClip('num25');
        $this->press(WebDriverKeys::HOME);
        $this->waitForFrame(0);
        $this->js('document.querySelector(".player").focus()');
        $this->press('+', '2', '4', WebDriverKeys::ENTER);
        $this->waitForFrame(24);
        $this->press('-', '.', '1', '0', WebDriverKeys::ENTER);
        $this->waitForFrame(14);
        $this->press('+', '1', '.', WebDriverKeys::ENTER);
        $this->waitForFrame(39);
        // It begins five seconds before midnight.
        $this->press('2', '3', '5', '9', '5', '7', '1', '2', WebDriverKeys::ENTER);
        $this->waitForFrame(62);
        self::assertSame(62, $this->shown());
        $this->press('9', '0', '0', '0', '0', WebDriverKeys::ENTER);
        $this->see('.ant-message', 'The clip does not reach 00:09:00:00.');
        self::assertSame('62', $this->js('return document.querySelector(".player").dataset.frame'));
    }

    public function test_sound_alone_stays_where_it_is_put_and_is_stepped_by_frames_and_by_a_millisecond(): void
    {
        $this->openClip('99-T01');
        $frame = fn(): int => (int) $this->js('return document.querySelector(".player").dataset.frame');
        // 70 s at 25: a click on its middle is second 35.
        $this->js(
            'const box = document.querySelector(".player .player-wave"); const edge = box.getBoundingClientRect(); box.dispatchEvent(new ' .
                'MouseEvent("click", { bubbles: true, clientX: edge.left + edge.width / 2, clientY: edge.top + 5 }))',
        );
        $this->until(fn(): bool => abs($frame() - 875) <= 3, 'the click is not where it was put');
        $put = $frame();
        $this->press(' ');
        $this->until(fn(): bool => $frame() > $put + 10, 'it does not play');
        $this->press('k');
        $this->until(fn(): bool => $this->js('return document.querySelector(".player").dataset.playing') === 'false', 'it does not stop');
        $stood = $frame();
        self::assertGreaterThan($put, $stood, 'it does not spring back');
        $this->press('.', '.', ',');
        $this->until(fn(): bool => $frame() === $stood + 1, 'a step is a frame of the production');
        $this->js('document.querySelector(".player").focus()');
        foreach (range(1, 41) as $_) {
            $this->js(
                'document.querySelector(".player").dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", altKey: true, ' .
                    'bubbles: true, cancelable: true }))',
            );
        }
        $this->until(fn(): bool => $frame() === $stood + 2, 'forty-one milliseconds are a frame and a little');
        $this->press('j');
        $this->until(fn(): bool => $frame() < $stood - 10, 'it does not run backwards');
        $this->press('k');
    }

    public function test_a_marked_point_of_sound_stays_and_is_taken_back_and_belongs_to_who_set_it(): void
    {
        $this->open(self::$testDay . '/bins?clip=' . $this->clipSheet('99-T01')['ulid']);
        $this->see('.player');
        $this->press('.', '.', '.', 'i', '>', '>', 'o');
        $this->see('.player .more', 'in to out');
        $this->until(fn(): bool => $this->clipSheet('99-T01')['marks']['out_ticks'] !== null, 'the marks are not kept');
        self::assertSame(3 * 28_224_000, $this->clipSheet('99-T01')['marks']['in_ticks']);
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(fn(): bool => $this->clipSheet('99-T01')['marks']['out_ticks'] === null, 'the out point is not taken back');
        self::assertSame(3 * 28_224_000, $this->clipSheet('99-T01')['marks']['in_ticks']);
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(fn(): bool => $this->clipSheet('99-T01')['marks']['in_ticks'] === null, 'the in point is not taken back');
        $this->open(self::$testDay . '/log');
        $this->see('nav.spine');
    }
}
