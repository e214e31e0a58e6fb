<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;

/** What a person does with a day that is lined up, day 1 of the demo: orders, moves, compares, looks; each test takes back what it did. */
final class LineupStageTest extends BrowserTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn('rosa');
        $this->click('.date', 'Day 1');
        $this->see('.date.on', 'Day 1');
        $this->press('4');
        $this->see('.placed');
    }

    private function takeBack(): void
    {
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
    }

    /** @return list<string> */
    private function lanes(): array
    {
        return $this->js('return [...document.querySelectorAll(".name .badge")].map((badge) => badge.textContent)');
    }

    private function choose(string $clip): void
    {
        $this->click('.placed[aria-label^="' . $clip . ',"]');
        $this->see('aside h2', $clip);
    }

    private function place(): string
    {
        return (string) $this->js(
            'return [...document.querySelectorAll("aside dl dt")].find((one) => one.textContent === ' .
                '"Place").nextElementSibling.textContent.trim()',
        );
    }

    /** A clip of camera A that a run placed surely by sound, and that nobody locked. */
    private function aClip(): string
    {
        return (string) $this->js(
            'return [...document.querySelectorAll(".placed")].map((one) => /^(A\\w+), by ' .
                'sound$/.exec(one.getAttribute("aria-label"))?.[1]).find((name) => name !== undefined)',
        );
    }

    public function test_lanes_are_ordered_from_the_keyboard_stay_so_and_are_taken_back(): void
    {
        $before = $this->lanes();
        $after = [$before[1], $before[0], ...array_slice($before, 2)];
        $this->js('document.querySelector(".name").focus()');
        $this->press(WebDriverKeys::ALT . WebDriverKeys::ARROW_DOWN . WebDriverKeys::ALT);
        $this->until(fn(): bool => $this->lanes() === $after, 'the lane does not move');
        $this->chrome()->driver->navigate()->refresh();
        $this->see('.placed');
        self::assertSame($after, $this->lanes());
        $this->takeBack();
        $this->until(fn(): bool => $this->lanes() === $before, 'the order does not come back');
    }

    public function test_a_lane_is_dragged_onto_another_and_takes_its_place(): void
    {
        $before = $this->lanes();
        $this->js(
            <<<'JS'
            const names = document.querySelectorAll('.name'), data = new DataTransfer()
            const drag = (what, on) => on.dispatchEvent(new DragEvent(what, { dataTransfer: data, bubbles: true, cancelable: true }))
            drag('dragstart', names[0])
            drag('dragover', names[names.length - 1])
            drag('drop', names[names.length - 1])
            JS
            ,
        );
        $after = [...array_slice($before, 1), $before[0]];
        $this->until(fn(): bool => $this->lanes() === $after, 'the lane does not take the last place');
        $this->takeBack();
        $this->until(fn(): bool => $this->lanes() === $before, 'the order does not come back');
    }

    public function test_a_place_that_was_nudged_differs_from_the_run_and_goes_back_to_it(): void
    {
        $clip = $this->aClip();
        $this->choose($clip);
        $before = $this->place();
        $this->press('>');
        $this->until(fn(): bool => $this->place() !== $before, 'it does not move');
        $this->press('r');
        $this->see('.runs .row', $clip);
        $this->see('.runs .row', '+40.0 ms');
        $this->click('.runs .go', 'Go back to run');
        $this->until(fn(): bool => $this->place() === $before, 'it does not go back');
    }

    public function test_a_clip_that_is_not_in_it_waits_among_the_strays_until_that_is_taken_back(): void
    {
        $clip = $this->aClip();
        $this->choose($clip);
        $this->press('x');
        $this->see('.stray.out', $clip);
        self::assertStringContainsString('Let it in again', $this->text('.stray.out'));
        $this->takeBack();
        $this->see('.placed[aria-label^="' . $clip . ',"]');
        $this->seeNo('.stray.out');
    }

    public function test_a_look_from_a_file_is_seen_in_the_player_and_is_off_by_one_key(): void
    {
        $file = tempnam(sys_get_temp_dir(), 'look') . '.cdl';
        file_put_contents(
            $file,
            '<?xml version="1.0"?><ColorDecisionList xmlns="urn:ASC:CDL:v1.2"><ColorDecision><ColorCorrection ' .
                'id="dusk at the weir"><SOPNode><Slope>0.8 0.9 1.2</Slope><Offset>0 0 0.02</Offset><Power>1 1 ' .
                '1</Power></SOPNode><SatNode><Saturation>0.7</Saturation></SatNode></ColorCorrection></ColorDecision>' .
                '</ColorDecisionList>',
        );
        $this->choose($this->aClip());
        $this->press('a');
        $this->see('.looks .list');
        $this->chrome()
            ->driver->findElement(WebDriverBy::cssSelector('input[type=file][accept*=cdl]'))
            ->setFileDetector(new LocalFileDetector())
            ->sendKeys($file);
        unlink($file);
        $this->see('.looks .one.on', 'dusk at the weir');
        $this->click('.looks .go', 'For camera');
        $this->press(WebDriverKeys::ESCAPE);
        $this->seeNo('.ant-modal-wrap:not([style*="display: none"])');
        $this->press('p');
        $filter = fn(): string => (string) $this->js(
            'const shown = document.querySelector(".player canvas.shown"); ' .
                'return shown === null ? "no player" : getComputedStyle(shown).filter',
        );
        $this->until(fn(): bool => str_contains($filter(), 'look-'), 'the look is not seen');
        $this->press('\\');
        $this->until(fn(): bool => $filter() === 'none', 'the look does not go off');
        $this->press('\\');
        $this->until(fn(): bool => str_contains($filter(), 'look-'), 'the look does not come back');
        $this->takeBack();
        $this->until(fn(): bool => $filter() === 'none', 'the look of the camera is not taken back');
        $this->takeBack();
        $this->press('a');
        $this->see('.looks .one', 'A new look');
        $this->until(fn(): bool => !str_contains($this->text('.looks .list'), 'dusk at the weir'), 'the file is not taken back');
        $this->press(WebDriverKeys::ESCAPE);
    }
}
