<?php

declare(strict_types=1);

namespace Tests\Browser;

use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Timecode;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\TestCards;

/** The player shows the frame that it says, at every rate, and its sound stays with the picture. */
final class PlayerTest extends BrowserTestCase
{
    private static bool $isReady = false;

    protected function setUp(): void
    {
        parent::setUp();
        if (self::$isReady) {
            return;
        }
        TestCards::numbered(self::bench() . '/A091', 'num24', '24000/1001', '10:00:00:00', 260);
        TestCards::numbered(self::bench() . '/A091', 'num25', '25', '23:59:55:00', 260);
        TestCards::numbered(self::bench() . '/A091', 'num30', '30000/1001', '00:00:55;00', 260);
        TestCards::flashing(self::bench() . '/A092', self::bench() . '/S092', 66);
        $this->signIn('rosa');
        $this->addDay();
        $this->press('2');
        foreach (['A091', 'A092', 'S092'] as $card) {
            $this->chooseCard($card);
            $this->see('aside h2', "$card, in a reader");
            $this->click('aside .big');
        }
        foreach (['A091', 'A092', 'S092'] as $card) {
            $this->until(
                fn(): bool => (bool) $this->js(
                    'return [...document.querySelectorAll(".card")].some((card) => ' .
                        'card.textContent.includes(arguments[0]) && card.textContent.includes("VERIFIED") && ' .
                        '!card.textContent.includes("cataloguing"))',
                    $card,
                ),
                "$card is not catalogued",
                120,
            );
        }
        $this->press('3');
        $this->click('button', 'Read slates');
        $this->see('.ant-modal td', '99_T01_A');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.row.take', '99_T01_A');
        $this->press('4');
        $this->click('button.go', 'Line up the day');
        $this->see('.placed', '99_T01_A', 120);
        $this->seeNo('.busy .progress', 120);
        self::$isReady = true;
    }

    private function addDay(): void
    {
        $this->see('.date.add');
        $this->click('.date.add');
        $this->see('.ant-modal input[type=date]');
        $this->click('.ant-modal .ant-btn-primary');
        // The demo's days and those of other tests come before it; its tab is in sight all the same.
        $this->until(
            fn(): bool => (bool) $this->js(
                <<<'JS'
                const last = [...document.querySelectorAll('.date:not(.add)')].at(-1)
                const add = document.querySelector('.date.add').getBoundingClientRect()
                return last.classList.contains('on') && last.getBoundingClientRect().right <= add.left + 1
                JS
                ,
            ),
            'the tab of the new day is not in sight',
        );
    }

    /** The frame number that the picture itself shows. */
    private function shown(): int
    {
        return (int) $this->js(
            <<<'JS'
            const video = document.querySelector('.player video')
            const canvas = document.createElement('canvas')
            canvas.width = 480; canvas.height = 16
            const pen = canvas.getContext('2d')
            pen.drawImage(video, 0, 100, video.videoWidth, 20, 0, 0, 480, 16)
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
        $this->press('/', ...mb_str_split($name));
        $this->see('.hits button', $name);
        $this->press(WebDriverKeys::ENTER);
        $this->see('aside h2', $name);
        $this->until(
            fn(): bool => (bool) $this->js(
                'const video = document.querySelector(".player video"); return video !== null && video.readyState >= ' .
                    '2 && document.querySelector(".player").dataset.frame !== ""',
            ),
            "$name does not load",
        );
    }

    private function waitForFrame(int $frame): void
    {
        $this->until(
            fn(): bool => $this->js('return document.querySelector(".player").dataset.frame') === (string) $frame &&
                !$this->js('return document.querySelector(".player video").seeking'),
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
        foreach ([1, 1, 1, 5, 30, -2, 100, -7, 60, 1] as $steps) {
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
            fn(): bool => !$this->js('return document.querySelector(".player video").seeking') &&
                $this->shown() === (int) $this->js('return document.querySelector(".player").dataset.frame'),
            'label and picture do not agree',
        );
        $frame = $this->shown();
        $this->press('.', '.', '.');
        $this->waitForFrame($frame + 3);
        self::assertSame($frame + 3, $this->shown());
    }

    public function test_the_recorders_sound_stays_within_20_ms_of_the_picture_for_a_minute(): void
    {
        $this->openClip('99_T01_A');
        $this->waitForFrame(0);
        self::assertTrue(
            $this->js('return document.querySelector(".player video source").src.includes("/synced")'),
            'the recorder\'s sound is not laid',
        );
        $measured = $this->jsAsync(
            <<<'JS'
            const done = arguments[arguments.length - 1]
            const video = document.querySelector('.player video')
            const context = new AudioContext({ sampleRate: 48000, latencyHint: 'interactive' })
            const flashes = [], beeps = []
            const canvas = document.createElement('canvas'); canvas.width = canvas.height = 4
            const pen = canvas.getContext('2d', { willReadFrequently: true })
            // The flash of frame 0 is a picture at rest, of which no moment can be told.
            let lit = true
            const look = (_now, facts) => {
              pen.drawImage(video, 0, 0, 4, 4)
              const bright = pen.getImageData(1, 1, 1, 1).data[0] > 120
              if (bright && !lit) flashes.push(facts.mediaTime)
              lit = bright
              video.requestVideoFrameCallback(look)
            }
            video.requestVideoFrameCallback(look)
            // The element's own sound, tapped; each block is timed by the media clock that the pictures keep.
            const source = context.createMediaElementSource(video)
            const tap = context.createScriptProcessor(256, 2, 1)
            let loud = false, quiet = 0
            tap.onaudioprocess = (event) => {
              const data = event.inputBuffer.getChannelData(0)
              for (let i = 0; i < data.length; i++) {
                if (Math.abs(data[i]) > 0.1) {
                  if (!loud) beeps.push(video.currentTime + (i - data.length) / 48000)
                  loud = true; quiet = 0
                } else if (++quiet > 9600) loud = false
              }
            }
            source.connect(tap); tap.connect(context.destination); source.connect(context.destination)
            context.resume().then(() => video.play()).then(() => {
              const watch = setInterval(() => {
                if (video.currentTime < 62 && !video.ended) return
                clearInterval(watch); video.pause()
                done({ flashes, beeps })
              }, 100)
            }).catch((trouble) => done({ trouble: String(trouble), flashes, beeps }))
            JS
            ,
            100,
        );
        self::assertArrayNotHasKey('trouble', $measured);
        $beeps = array_values(array_filter($measured['beeps'], static fn(float $at): bool => $at > 1));
        self::assertCount(12, $beeps, 'one every five seconds: ' . json_encode($measured));
        // A machine without a graphics processor that is busy shows not each picture, so that a flash of one frame may be missed:
        // what this holds to is that those seen, early and late, lie under their beeps.
        self::assertGreaterThanOrEqual(6, count($measured['flashes']));
        self::assertGreaterThan(45, max($measured['flashes']));
        foreach ($measured['flashes'] as $flash) {
            $index = (int) round($flash / 5) - 1;
            self::assertEqualsWithDelta(5 * ($index + 1), $flash, 0.001, 'the flash is where it was drawn');
            self::assertEqualsWithDelta($flash, $beeps[$index], 0.02, "beep $index");
        }
    }
}
