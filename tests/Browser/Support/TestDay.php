<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Facebook\WebDriver\WebDriverKeys;

/** A day of its own with clips at every rate, a camera that flashes and the recorder that ran with it, lined up. */
trait TestDay
{
    protected function openTestDay(): void
    {
        $this->signIn('rosa');
        if (self::$testDay !== null) {
            $this->open(self::$testDay . '/log');
            $this->see('nav.spine');

            return;
        }
        foreach (
            [
                'num24' => ['24000/1001', '10:00:00:00'],
                'num25' => ['25', '23:59:55:00'],
                'num30' => ['30000/1001', '00:00:55;00'],
                'num30n' => ['30000/1001', '00:00:55:00'],
                'num50' => ['50', '12:00:00:00'],
                'num60' => ['60000/1001', '01:00:00:00'],
            ]
            as $name => [$rate, $timecode]
        ) {
            TestCards::numbered(self::bench() . '/A091', $name, $rate, $timecode, 260);
        }
        TestCards::flashing(self::bench() . '/A092', self::bench() . '/S092', 66);
        self::$testDay = $this->dayOf(['A091', 'A092', 'S092'], '99_T01_A');
    }

    /**
     * A new day with those cards in, its slates read and lined up.
     *
     * @param  list<string>  $cards  they are in readers
     * @param  string  $clip  one that is placed then
     * @return string where the day lies
     */
    private function dayOf(array $cards, string $clip): string
    {
        $this->addDay();
        $this->press('2');
        foreach ($cards as $card) {
            $this->chooseCard($card);
            $this->see('aside h2', "$card, in a reader");
            $this->click('aside .big');
        }
        foreach ($cards as $card) {
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
        $this->see('.ant-modal td', $clip);
        $this->press(WebDriverKeys::ENTER);
        $this->see('.row.take', $clip);
        $this->press('4');
        $this->click('button.go', 'Line up the day');
        $this->see('.placed', $clip, 120);
        $this->seeNo('.busy .progress', 120);

        return (string) preg_replace(
            '#(/[0-9A-Z]{26}/[0-9A-Z]{26}).*#',
            '$1',
            (string) parse_url($this->chrome()->driver->getCurrentURL(), PHP_URL_PATH),
        );
    }

    protected function production(): string
    {
        return explode('/', (string) self::$testDay)[1];
    }

    /** @return array<string, mixed> what the server says of a clip */
    protected function clipSheet(string $name): array
    {
        $answer = $this->jsAsync(
            <<<'JS'
            const [production, name, done] = arguments
            const ask = async (path) => (await fetch(`/api/productions/${production}/${path}`)).json()
            ask(`search?q=${name}`)
              .then((found) => found.hits.find((one) => one.what === 'clip' && one.name === name))
              .then((hit) => ask(`clips/${hit.ulid}`))
              .then(done)
              .catch((trouble) => done(String(trouble)))
            JS
            ,
            20,
            $this->production(),
            $name,
        );

        return is_array($answer) ? $answer : self::fail("$name: $answer");
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
}
