<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\CutReading;
use Tests\Browser\Support\TestCards;
use Tests\Browser\Support\TestDay;

/** An event of four minutes is cut live between three cameras, worked on, and what is seen and heard is held against the cut. */
final class ThreeCamerasTest extends BrowserTestCase
{
    use CutReading;
    use TestDay;

    private const FRAME = 28_224_000;

    private const FRAMES = 6_000;

    private static string $day = '';

    private static string $wall = '';

    /** @return list<array<string, mixed>> what is on air, in its order */
    private function onAir(): array
    {
        return $this->items(self::$wall)['On air'] ?? [];
    }

    /** @return list<string> */
    private function letters(): array
    {
        return array_map(static fn(array $item): string => $item['angles']['current'], $this->onAir());
    }

    private function rests(): void
    {
        $this->until(
            fn(): bool => $this->js('return document.querySelector(".wall").dataset.pending') === '0',
            'cuts are still on their way',
        );
    }

    private function stands(string $page): int
    {
        return (int) $this->js('return Number(document.querySelector(arguments[0]).dataset.at)', $page);
    }

    /** Puts the pen of the score on a frame's neighbourhood, as a hand does with the pointer. */
    private function goNear(int $frame): void
    {
        $ruler = $this->find('.staves .area .ruler');
        $width = $ruler->getSize()->getWidth();
        $x = (int) (($frame / self::FRAMES - 0.5) * $width);
        (new WebDriverActions($this->chrome()->driver))->moveToElement($ruler, $x, 0)->click()->perform();
        $this->until(fn(): bool => abs($this->stands('.wall') / self::FRAME - $frame) < 60, "the pen is not near $frame");
    }

    public function test_twenty_cuts_are_laid_on_the_frames_on_which_the_digits_went_down(): void
    {
        TestCards::event(self::bench());
        $this->signIn('rosa');
        self::$day = $this->dayOf(['A095', 'B095', 'C095', 'S095'], '95_T01_A');
        $this->inRealTime($this->cutLive(...));
        self::assertCount(1, $this->items(self::$wall)['The whole'], 'the sound of the whole stays');
        self::assertSame([], $this->consoleErrors());
    }

    /** Twenty digits while it plays, in an angle cut of their own. */
    private function cutLive(): void
    {
        $this->open(self::$day . '/assembly');
        $this->see('.events .row', '95/1');
        $this->click('.events .row button', 'Cut between angles');
        $this->see('.wall .tile[data-letter=C]');
        self::$wall = $this->opened('wall');
        $this->readNumbers(TestCards::EVENT_BITS, '.tile canvas');
        $wanted = [];
        foreach ([200, 1300, 2500, 3700, 4900] as $group => $near) {
            $this->goNear($near);
            $this->press(' ');
            for ($n = 0; $n < 4; $n++) {
                $at = $this->stands('.wall');
                $this->until(fn(): bool => $this->stands('.wall') > $at + 18 * self::FRAME, 'it does not play');
                $digit = 1 + ((4 * $group + $n) % 3);
                $this->press((string) $digit);
                $wanted[] = 'ABC'[$digit - 1];
                $this->until(
                    fn(): bool => $this->js('return document.querySelector(".wall").dataset.air') === $wanted[count($wanted) - 1],
                    "$digit is not on air",
                );
            }
            $this->press('k');
            $this->rests();
        }
        self::assertSame($wanted, $this->letters());
        $pressed = $this->js('return window.digits');
        self::assertCount(20, $pressed);
        foreach ($this->onAir() as $n => $item) {
            self::assertSame(0, $item['record_start_ticks'] % self::FRAME);
            // What was on air until then is what was watched.
            $watched = strpos('ABC', $n === 0 ? $wanted[0] : $wanted[$n - 1]);
            $number = $pressed[$n][1][$watched] - $watched * TestCards::MOST + TestCards::EVENT['ABC'[$watched]][1];
            self::assertSame($number, $item['record_start_ticks'] / self::FRAME, "cut $n");
        }
    }

    #[Depends('test_twenty_cuts_are_laid_on_the_frames_on_which_the_digits_went_down')]
    public function test_one_is_replaced_one_moved_one_joined_and_plain_clips_go_and_come(): void
    {
        // The pen stands in the last piece.
        $before = $this->onAir();
        $this->press('=', '3');
        $this->until(fn(): bool => $this->letters()[19] === 'C', 'the last piece does not change');
        $this->press(';', ';');
        $this->until(
            fn(): bool => $this->stands('.wall') === $before[18]['record_start_ticks'],
            'the pen is not on the cut before the last piece',
        );
        $this->press(']', ']');
        $this->until(
            fn(): bool => $this->onAir()[18]['record_start_ticks'] === $before[18]['record_start_ticks'] + 2 * self::FRAME,
            'the cut does not move',
        );
        $this->press(';', ';');
        $this->press(WebDriverKeys::BACKSPACE);
        $this->until(fn(): bool => count($this->onAir()) === 19, 'nothing is joined');
        $after = $this->onAir();
        self::assertSame(array_slice($before, 0, 14), array_slice($after, 0, 14), 'nothing else changed');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.ant-modal .pick', 'A new cut of its own');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.cut .bar', '95/1, cut');
        $laid = fn(): array => $this->items($this->opened('cut'))['Picture'];
        $angles = fn(): int => count(array_filter($laid(), static fn(array $item): bool => isset($item['angles'])));
        self::assertSame(19, $angles());
        $this->press(WebDriverKeys::CONTROL . 'a' . WebDriverKeys::NULL, 'p');
        $this->until(fn(): bool => $angles() === 0, 'they are no plain clips');
        $this->press(WebDriverKeys::CONTROL . 'a' . WebDriverKeys::NULL, 'P');
        $this->until(fn(): bool => $angles() === 19, 'they have no angles again');
        self::assertSame([], $this->consoleErrors());
    }

    /** @return int the number that the cut's picture carries at one of its frames */
    private static function number(array $items, int $frame): int
    {
        foreach ($items as $item) {
            $into = $frame - $item['record_start_ticks'] / self::FRAME;
            if ($into >= 0 && $into < $item['duration_ticks'] / self::FRAME) {
                $camera = strpos('ABC', substr($item['source']['name'], -1));

                return $camera * TestCards::MOST + intdiv($item['source_start_ticks'], self::FRAME) + $into;
            }
        }
        self::fail("nothing lies at frame $frame");
    }

    #[Depends('test_one_is_replaced_one_moved_one_joined_and_plain_clips_go_and_come')]
    public function test_every_frame_around_the_cuts_is_the_cuts_and_sound_stays_with_them(): void
    {
        $this->readNumbers(TestCards::EVENT_BITS);
        $this->tapSound();
        $items = $this->items($this->opened('cut'))['Picture'];
        $sees = function (int $frame) use ($items): void {
            $wanted = self::number($items, $frame);
            $this->until(
                fn(): bool => $this->js('return window.numberIn(".cut .screen canvas")') === $wanted,
                "frame $frame is not $wanted",
            );
        };
        $this->press(WebDriverKeys::HOME);
        foreach (array_slice($items, 1) as $item) {
            $cut = $item['record_start_ticks'] / self::FRAME;
            $this->press("'");
            $sees($cut);
            foreach ([-1, -2] as $by) {
                $this->press(',');
                $sees($cut + $by);
            }
            foreach ([-1, 0, 1, 2] as $by) {
                $this->press('.');
                $sees($cut + $by);
            }
        }
        $this->inRealTime(fn() => $this->playsAsItIsCut($items));
        self::assertSame([], $this->consoleErrors());
    }

    /** @param  list<array<string, mixed>>  $items */
    private function playsAsItIsCut(array $items): void
    {
        // Four cuts, a second from each other, and the beeps of the recorder's clock between them.
        $from = $items[4]['record_start_ticks'] / self::FRAME - 60;
        $this->press(WebDriverKeys::HOME, ...array_fill(0, 4, "'"));
        $this->press(...array_fill(0, 12, '<'));
        $this->until(fn(): bool => $this->stands('.cut') === $from * self::FRAME, 'it does not stand before the cuts');
        $this->js('window.laid.length = 0; window.watched = window.watchNumbers(".cut .screen canvas")');
        $this->press(' ');
        $this->until(fn(): bool => $this->stands('.cut') > ($from + 300) * self::FRAME, 'it does not play');
        [$seen, $beeps] = $this->js('return [window.watched(), window.beeps()]');
        $this->press('k');
        $frames = [];
        for ($frame = $from; $frame < $from + 340; $frame++) {
            $frames[self::number($items, $frame)] = $frame;
        }
        $last = $from - 1;
        foreach ($seen as [$moment, $number]) {
            self::assertArrayHasKey($number, $frames, 'a picture is seen that is not of the cut');
            self::assertGreaterThanOrEqual($last, $frames[$number], 'a picture is seen again');
            self::assertLessThanOrEqual($last + 4, $frames[$number], 'pictures are missing');
            $last = $frames[$number];
        }
        // A beep is at each five seconds of the event's clock, which is where the picture of that moment was shot.
        $begin = TestCards::EVENT[substr($items[0]['source']['name'], -1)][1] + intdiv($items[0]['source_start_ticks'], self::FRAME);
        $heard = 0;
        foreach ($beeps as $beep) {
            $now = null;
            foreach ($seen as [$moment, $number]) {
                $now = $moment <= $beep ? $frames[$number] + 25 * ($beep - $moment) : $now;
            }
            if ($now !== null && $beep < $seen[count($seen) - 1][0]) {
                $beside = fmod($begin + $now + 62.5, 125) - 62.5;
                self::assertEqualsWithDelta(0, $beside, 1.5, 'frames from the beep to its picture');
                $heard++;
            }
        }
        self::assertGreaterThan(0, $heard, 'no beep was heard');
    }
}
