<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\CutReading;

/** Somebody cuts: a string-out of lines by keys alone, and an event between its cameras by digits. The words are found by now. */
final class WordsToCutTest extends BrowserTestCase
{
    use CutReading;

    private const S = 705_600_000;

    public function test_a_string_out_of_three_lines_is_made_from_the_script_by_keys_alone(): void
    {
        $this->signIn('rosa');
        $this->press('7');
        $this->see('h2', 'Cuts');
        $this->press('+');
        $this->see('.ant-modal', 'A new cut');
        $this->press(...mb_str_split('Opening'));
        $this->press(WebDriverKeys::ENTER);
        $this->see('.cut .line .one');
        $this->see('.cut', 'An empty cut');
        foreach ([1, 2, 3] as $count) {
            $this->press(WebDriverKeys::ENTER);
            $this->see('[data-testid=covered]', "$count of 5 lines in the cut");
        }
        $items = $this->items($this->opened('cut'));
        self::assertCount(3, $items['Picture']);
        self::assertSame(['Picture', 'Mara', 'Quill'], array_keys($items));
        $end = 0;
        foreach ($items['Picture'] as $item) {
            self::assertSame($end, $item['record_start_ticks'], 'no hole between them');
            $end += $item['duration_ticks'];
        }
        // The channel of who speaks lies under her picture.
        self::assertSame($items['Picture'][0]['duration_ticks'], $items['Mara'][0]['duration_ticks']);
        self::assertStringContainsString('Mara', $items['Mara'][0]['name']);
        self::assertSame([], $this->consoleErrors());
    }

    #[Depends('test_a_string_out_of_three_lines_is_made_from_the_script_by_keys_alone')]
    public function test_pieces_are_trimmed_split_joined_tried_and_taken_back_by_keys(): void
    {
        $cut = $this->opened('cut');
        $step = fn(): int => (int) $this->js('return document.querySelector(".cut").dataset.step');
        $done = function (int $wanted, string $what) use ($step): void {
            $this->until(fn(): bool => $step() === $wanted, "$what is no step: {$step()} of $wanted");
        };
        $this->press(WebDriverKeys::HOME, "'");
        $this->until(
            fn(): bool => (int) $this->js('return document.querySelector(".cut").dataset.at') > self::S,
            'the next cut is not gone to',
        );
        $before = $this->items($cut)['Picture'];
        $this->press(']');
        $done(4, 'a roll');
        $rolled = $this->items($cut)['Picture'];
        self::assertSame($before[0]['duration_ticks'] + self::S / 25, $rolled[0]['duration_ticks']);
        self::assertSame($before[2], $rolled[2], 'nothing else moved');
        self::assertSame($rolled[0]['duration_ticks'], $this->items($cut)['Mara'][0]['duration_ticks'], 'her sound goes along');
        $this->press('.', '.', '.', '.', '|');
        $done(5, 'a split');
        self::assertCount(4, $this->items($cut)['Picture']);
        $this->press(WebDriverKeys::BACKSPACE);
        $done(6, 'a join');
        self::assertSame($rolled, $this->items($cut)['Picture']);
        // Tried in place, nothing is written; kept, it is one step.
        $this->see('.beneath .one');
        $this->press('t');
        $this->until(fn(): bool => $this->js('return document.querySelector(".cut").dataset.trying') !== '', 'nothing is tried');
        self::assertSame(6, $step());
        $this->press(WebDriverKeys::ENTER);
        $done(7, 'what was tried');
        self::assertNotSame($rolled[1]['source']['id'], $this->items($cut)['Picture'][1]['source']['id']);
        foreach ([8, 9, 10, 11] as $wanted) {
            $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::NULL);
            $done($wanted, 'taking back');
        }
        self::assertSame($before, $this->items($cut)['Picture']);
        self::assertSame([], $this->consoleErrors());
    }

    #[Depends('test_pieces_are_trimmed_split_joined_tried_and_taken_back_by_keys')]
    public function test_an_event_is_cut_between_its_cameras_while_it_plays(): void
    {
        $this->press(WebDriverKeys::ESCAPE);
        $this->see('.events .row', '3/1');
        $this->click('.events .row button', 'Cut between angles');
        $this->see('.wall .tile[data-letter=B]');
        $wall = $this->opened('wall');
        $rests = fn(): bool => $this->js('return document.querySelector(".wall").dataset.pending') === '0';
        $air = fn(): string => (string) $this->js('return document.querySelector(".wall").dataset.air');
        $this->press(' ');
        foreach (['2', '1', '2', '1', '2'] as $digit) {
            $at = (int) $this->js('return Number(document.querySelector(".wall").dataset.at)');
            $this->until(
                fn(): bool => (int) $this->js('return Number(document.querySelector(".wall").dataset.at)') > $at + self::S / 2,
                'it does not play',
            );
            $this->press($digit);
            $this->until(fn(): bool => $air() === ['1' => 'A', '2' => 'B'][$digit], "$digit is not on air");
        }
        $this->press('k');
        $this->until($rests, 'cuts are still on their way');
        $letters = fn(): array => array_map(static fn(array $item): string => $item['angles']['current'], $this->items($wall)['On air']);
        self::assertSame(['B', 'A', 'B', 'A', 'B'], $letters());
        $items = $this->items($wall)['On air'];
        foreach (array_slice($items, 1) as $n => $item) {
            self::assertSame($items[$n]['record_start_ticks'] + $items[$n]['duration_ticks'], $item['record_start_ticks']);
            self::assertSame(0, $item['record_start_ticks'] % (self::S / 25));
        }
        self::assertCount(1, $this->items($wall)['The whole'], 'the sound of the whole stays');
        // The last piece shows the other camera; the cut before it is moved; and then it is one piece with the one before.
        $this->press('=', '1');
        $this->until(fn(): bool => $rests() && $letters()[count($letters()) - 1] === 'A', 'the piece does not change');
        $this->press(';');
        $this->press('[');
        $this->until(
            fn(): bool => $this->items($wall)['On air'][count($letters()) - 2]['duration_ticks'] !== $items[3]['duration_ticks'] ||
                count($letters()) < 5,
            'the cut does not move',
        );
        $this->press(WebDriverKeys::ENTER);
        $this->see('.ant-modal .pick', 'A new cut of its own');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.cut .bar', '3/1, cut');
        $laid = fn(): array => $this->items($this->opened('cut'))['Picture'];
        self::assertArrayHasKey('angles', $laid()[0]);
        $this->press(WebDriverKeys::HOME, 'p');
        $this->until(fn(): bool => !isset($laid()[0]['angles']), 'it is no plain clip');
        $this->press('P');
        $this->until(fn(): bool => isset($laid()[0]['angles']), 'it has no angles again');
        self::assertSame([], $this->consoleErrors());
    }
}
