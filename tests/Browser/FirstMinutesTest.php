<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Facebook\WebDriver\WebDriverSelect;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\CutReading;
use Tests\Browser\Support\SixtyClips;
use Tests\Browser\Support\TestCards;

/** Somebody's first minutes at a desk, and a minute in which the desk cannot be reached. */
final class FirstMinutesTest extends BrowserTestCase
{
    use CutReading;

    private function away(bool $isAway): void
    {
        foreach (
            [
                ['Network.enable', []],
                [
                    'Network.emulateNetworkConditions',
                    ['offline' => $isAway, 'latency' => 0, 'downloadThroughput' => -1, 'uploadThroughput' => -1],
                ],
            ]
            as [$command, $given]
        ) {
            $this->chrome()->driver->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
                'cmd' => $command,
                'params' => (object) $given,
            ]);
        }
    }

    private function stage(): string
    {
        return basename($this->path());
    }

    private function path(): string
    {
        return (string) parse_url($this->chrome()->driver->getCurrentURL(), PHP_URL_PATH);
    }

    public function test_a_walk_leads_past_the_stages_by_the_keyboard_is_left_and_goes_on_where_it_was(): void
    {
        $this->signIn('rosa');
        $this->click('.me');
        $this->click('.ant-dropdown-menu-item', 'A walk through the day');
        foreach (['day' => '1 of 8', 'cards' => '2 of 8', 'log' => '3 of 8', 'lineup' => '4 of 8'] as $stage => $count) {
            $this->see('.walk .count', $count);
            $this->until(fn(): bool => $this->stage() === $stage, "it does not lead to $stage");
            $this->see('main .walked');
            if ($stage !== 'lineup') {
                $this->press(WebDriverKeys::ENTER);
            }
        }
        $this->press(WebDriverKeys::ESCAPE);
        $this->seeNo('.walk');
        $this->seeNo('.walked');
        $this->press('1');
        $this->click('.me');
        $this->click('.ant-dropdown-menu-item', 'A walk through the day');
        $this->see('.walk .count', '4 of 8');
        $this->until(fn(): bool => $this->stage() === 'lineup', 'it does not go on where it was left');
        for ($step = 5; $step <= 8; $step++) {
            $this->press(WebDriverKeys::ENTER);
            $this->see('.walk .count', "$step of 8");
            $this->see('main .walked');
        }
        $this->press(WebDriverKeys::ENTER);
        $this->see('.walk h2', 'You have seen it all');
        $this->click('.walk button', 'Close');
        $this->seeNo('.walk');
        self::assertSame([], $this->consoleErrors());
    }

    public function test_an_admin_is_led_from_a_new_production_to_its_first_card(): void
    {
        $reader = self::bench() . '/Z901';
        TestCards::numbered($reader, 'Z901C001', '25', '10:00:00:00', 50);
        try {
            $this->comeIn('adaeze');
            $this->see('.production', 'Low Water');
            $this->click('.productions .go', 'New production');
            $this->see('.fresh input:focus');
            $this->press('Spring Tide', WebDriverKeys::ENTER);
            // Its first day is there, and what waits in the readers.
            $this->until(fn(): bool => $this->stage() === 'cards', 'it does not lead to the cards');
            $this->see('.card', 'Z901');
            $this->chooseCard('Z901');
            $this->see('.as .warn', 'say here what it is');
            (new WebDriverSelect($this->find('.as select')))->selectByValue('+');
            $this->see('.fresh input:focus');
            $this->press('Z', WebDriverKeys::ENTER);
            $this->until(fn(): bool => $this->js('return document.querySelector(".as select").value') === 'Z', 'the device is not there');
            $this->click('.as .big', 'Z901');
            $this->see('.card', 'VERIFIED', 120);
            $this->until(
                fn(): bool => array_filter($this->asked('tasks')['tasks'], static fn(array $one): bool => $one['state'] !== 'done') === [],
                'work on it does not end',
                120,
            );
            $this->press('3');
            $this->see('main', 'Z901C001');
        } finally {
            // A page of it that is open still would ask for what is gone.
            $this->open('/favicon.svg');
            SixtyClips::database()
                ->prepare('DELETE FROM productions WHERE name = ?')
                ->execute(['Spring Tide']);
            (new Process(['rm', '-rf', '--', $reader]))->mustRun();
        }
        self::assertSame([], $this->consoleErrors());
    }

    public function test_an_address_that_was_cut_short_leads_to_the_newest_day(): void
    {
        $this->signIn('rosa');
        $whole = explode('/', $this->path());
        $this->open("/$whole[1]");
        $this->see('main h2');
        self::assertSame(['', $whole[1], 'day'], array_values(array_diff_key(explode('/', $this->path()), [2 => ''])));
        $this->open('/01ARZ3NDEKTSV4RRFFQ69G5FAV');
        $this->see('.empty', 'There is nothing at this address.');
        // The browser itself writes down that the answer was no.
        self::assertCount(1, $this->consoleErrors());
    }

    public function test_the_desk_speaks_italian_when_asked_and_english_again(): void
    {
        try {
            $this->signIn('rosa');
            $this->click('.me');
            $this->click('.ant-dropdown-menu-item', 'Your account');
            $this->click('.languages button', 'Italiano');
            $this->see('.spine', 'Giorno');
            self::assertSame('it', $this->js('return document.documentElement.lang'));
            $this->see('.rolled', 'Chi girava quando');
            $this->press('3');
            $this->see('.left', 'Foglio dei ciak');
            $this->press('?');
            $this->see('.ant-modal', 'Tasti di questa pagina');
            $this->see('.ant-modal h2', 'Foglio dei ciak');
            $this->press(WebDriverKeys::ESCAPE);
            $this->click('.me');
            $this->click('.ant-dropdown-menu-item', 'Il tuo account');
            $this->click('.languages button', 'English');
            $this->see('.spine', 'Day');
            $this->see('.left', 'Slate sheet');
        } finally {
            // Whatever comes next is English.
            $this->js('localStorage.removeItem("cartella.language")');
        }
        self::assertSame([], $this->consoleErrors());
    }

    public function test_what_is_done_while_the_desk_is_away_waits_is_told_and_is_sent_once(): void
    {
        $this->signIn('rosa');
        $this->press('7');
        $this->see('.page .bar', 'New cut');
        $this->away(true);
        try {
            $this->press('+');
            $this->see('.ant-modal input');
            $this->press('Through the gap', WebDriverKeys::ENTER);
            $this->see('.reach', 'One change waits');
        } finally {
            $this->away(false);
        }
        $this->seeNo('.reach', 30);
        $this->until(
            fn(): bool => $this->jsAsync(
                'const done = arguments[0]; const parts = location.pathname.split("/");' .
                    'fetch(`/api/productions/${parts[1]}/cuts`).then((answer) => answer.json())' .
                    '.then((all) => done(all.cuts.filter((one) => one.name === "Through the gap").length))',
                10,
            ) === 1,
            'the cut is not there once',
        );
    }
}
