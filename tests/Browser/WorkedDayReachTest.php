<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\CutReading;
use Tests\Browser\Support\Reach;

/** Every page for whoever hears it read out. The day is worked on by now: this comes after the tests that do that. */
final class WorkedDayReachTest extends BrowserTestCase
{
    use CutReading;
    use Reach;

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

    public function test_every_stage_says_what_it_is_to_those_who_hear_it(): void
    {
        $this->signIn('rosa');
        foreach (self::STAGES as $key => $seen) {
            $this->press((string) $key);
            $this->see($seen);
            $this->reach("stage $key");
            $this->fits("stage $key");
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
        $this->fits('the desk of a cut');
        $clip = $this->asked("sequences/$cut")['value']['tracks'][0]['items'][0]['source']['id'];
        $this->open("$day/clip/$clip");
        $this->see('.player');
        $this->reach('the page of a clip');
        $this->fits('the page of a clip');
        $this->open("$day/script");
        $this->see('main h2, .line');
        $this->reach('the script');
        $this->click('.mark');
        $this->see('.productions h1');
        $this->see('.production .day');
        $this->reach('the page of productions');
        $this->fits('the page of productions');
    }

    #[Depends('test_every_stage_says_what_it_is_to_those_who_hear_it')]
    public function test_pages_that_are_opened_now_and_then_say_it_too(): void
    {
        $this->signIn('rosa');
        $day = (string) preg_replace(
            '#(/[0-9A-Z]{26}/[0-9A-Z]{26}).*#',
            '$1',
            (string) parse_url($this->chrome()->driver->getCurrentURL(), PHP_URL_PATH),
        );
        $package = $this->asked('handoffs')['handoffs'][0]['ulid'] ?? self::fail('nothing was handed off');
        $received = $this->asked('received')['lists'][0]['ulid'] ?? self::fail('no list came back');
        [$one, $two] = array_column($this->asked('days/' . basename($day) . '/lineup')['placements'], 'clip');
        $pages = [
            'words' => '.left .bar',
            "handoff/$package" => '.split',
            "received/$received" => '.bar .plain.on',
            "compare/$one/$two" => '.two .player',
        ];
        foreach (['devices', 'days', 'fields', 'volumes', 'people', 'connections', 'library', 'record'] as $tab) {
            $pages["settings?tab=$tab"] = '[role=tab][aria-selected=true]';
        }
        foreach ($pages as $page => $seen) {
            $this->open("$day/$page");
            $this->see($seen);
            $this->reach($page);
        }
        foreach (
            ['log' => ['s', 'u', 'a'], 'lineup' => ['r', 'u'], 'bins' => ['n'], 'cards' => ['w'], 'screening' => ['n']]
            as $stage => $keys
        ) {
            $this->open("$day/$stage");
            $this->see('main .bar, main .log');
            foreach ($keys as $key) {
                $this->press($key);
                $this->see('.ant-modal');
                $this->reach("$stage, $key");
                $this->press(WebDriverKeys::ESCAPE);
                $this->seeNo('.ant-modal-wrap:not([style*="display: none"])');
            }
        }
        $this->open('/nowhere/at/all');
        $this->see('main, .empty', 'nothing');
        $this->reach('an address that is none');
        $this->chrome()->driver->manage()->deleteAllCookies();
        $this->open('/');
        $this->see('input[name=email]');
        $this->reach('the door');
    }
}
