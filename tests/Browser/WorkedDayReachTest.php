<?php

declare(strict_types=1);

namespace Tests\Browser;

use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\CutReading;

/** Every page for whoever hears it read out. The day is worked on by now: this comes after the tests that do that. */
final class WorkedDayReachTest extends BrowserTestCase
{
    use CutReading;

    /** Stages by their keys, and what is seen when they are there. */
    private const STAGES = [
        '1' => 'main h2',
        '2' => '.card, .empty',
        '3' => '.row.take, .empty',
        '4' => '.placed, .lane, .empty',
        '5' => 'main h2, .tree',
        '6' => 'main h2',
        '7' => 'main h2',
        '8' => 'main h2',
        '9' => 'main table, main .list',
    ];

    /** @return list<string> what keeps somebody out of the page as it is: rule, element and why; serious and worse */
    private function found(): array
    {
        if ($this->js('return typeof window.axe') !== 'object') {
            $this->js((string) file_get_contents(__DIR__ . '/../../node_modules/axe-core/axe.min.js'));
        }

        return $this->jsAsync(
            <<<'JS'
            const done = arguments[arguments.length - 1]
            axe
              .run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'], resultTypes: ['violations'] })
              .then(({ violations }) =>
                done(
                  violations
                    .filter((one) => ['serious', 'critical'].includes(one.impact))
                    .flatMap(({ id, nodes }) =>
                      nodes.slice(0, 4).map((node) => `${id}: ${node.html.slice(0, 160)} | ${node.failureSummary.slice(0, 260)}`),
                    ),
                ),
              )
              .catch((trouble) => done([String(trouble)]))
            JS
            ,
            60,
        );
    }

    private function reach(string $page): void
    {
        $this->seeNo('.bones');
        // What comes with a movement is measured when it is there.
        $this->until(
            fn(): bool => $this->js(
                'return document.getAnimations().every((one) => one.playState !== "running" || ' .
                    'one.effect.getTiming().iterations === Infinity)',
            ),
            "$page moves on and on",
        );
        self::assertSame([], $this->found(), $page);
    }

    public function test_every_stage_says_what_it_is_to_those_who_hear_it(): void
    {
        $this->signIn('rosa');
        foreach (self::STAGES as $key => $seen) {
            $this->press((string) $key);
            $this->see($seen);
            $this->reach("stage $key");
        }
        $this->press('?');
        $this->see('.ant-modal, .ant-drawer');
        $this->reach('the card of keys');
    }

    #[Depends('test_every_stage_says_what_it_is_to_those_who_hear_it')]
    public function test_pages_inside_the_stages_say_it_too(): void
    {
        $day = (string) preg_replace(
            '#(/[0-9A-Z]{26}/[0-9A-Z]{26}).*#',
            '$1',
            (string) parse_url($this->chrome()->driver->getCurrentURL(), PHP_URL_PATH),
        );
        $cut = $this->asked('cuts')['cuts'][0]['ulid'] ?? self::fail('no cut is there');
        $this->open("$day/assembly?cut=$cut");
        $this->see('.cut .bar');
        $this->see('.paper');
        $this->reach('the desk of a cut');
        $clip = $this->asked("sequences/$cut")['value']['tracks'][0]['items'][0]['source']['id'];
        $this->open("$day/clip/$clip");
        $this->see('.player');
        $this->reach('the page of a clip');
        $this->open("$day/script");
        $this->see('main h2, .line');
        $this->reach('the script');
        $this->click('.mark');
        $this->see('.productions h1');
        $this->see('.production .day');
        $this->reach('the page of productions');
    }
}
