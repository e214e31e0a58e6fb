<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\Reach;
use Tests\Browser\Support\TestCards;
use Tests\Browser\Support\TestDay;

/** A reel on several screens: the desk, the house and somebody far away see the same picture at the same moment. */
final class ScreeningTest extends BrowserTestCase
{
    use Reach;
    use TestDay;

    private static ?string $reel = null;

    private static string $desk = '';

    protected function setUp(): void
    {
        parent::setUp();
        if (self::$reel === null) {
            $this->openTestDay();
            self::$desk = $this->chrome()->driver->getWindowHandle();
            $clips = array_column(array_map($this->clipSheet(...), ['num24', 'num25', 'num30', 'num50']), 'ulid');
            $this->ask('POST', $this->onDay('log/slate'), ['clips' => $clips, 'slate' => '41/1+']);
            self::$reel = (string) $this->ask('POST', $this->onDay('reels'), [
                'circled_only' => false,
                'from' => 'scenes',
                'what' => ['41'],
                'begin' => 'whole',
                'name' => 'Numbers',
            ])['ulid'];
        }
        foreach (array_diff($this->chrome()->driver->getWindowHandles(), [self::$desk]) as $other) {
            $this->chrome()->driver->switchTo()->window($other)->close();
        }
        $this->chrome()->driver->switchTo()->window(self::$desk);
    }

    private function onDay(string $path): string
    {
        return 'days/' . explode('/', (string) self::$testDay)[2] . "/$path";
    }

    /**
     * @param  array<string, mixed>|null  $body
     * @return array<string, mixed>
     */
    private function ask(string $method, string $path, ?array $body = null): array
    {
        $answer = $this->jsAsync(
            <<<'JS'
            const [address, method, body, done] = arguments
            const token = decodeURIComponent((document.cookie.match(/XSRF-TOKEN=([^;]+)/) ?? [])[1] ?? '')
            fetch(address, {
              method,
              headers: { 'Content-Type': 'application/json', Accept: 'application/json', 'X-XSRF-TOKEN': token },
              body: body === null ? undefined : JSON.stringify(body),
            })
              .then(async (answer) => done({ status: answer.status, body: await answer.json() }))
              .catch((trouble) => done({ status: 0, body: String(trouble) }))
            JS
            ,
            30,
            "/api/productions/{$this->production()}/$path",
            $method,
            $body,
        );
        self::assertLessThan(300, $answer['status'], json_encode($answer));

        return $answer['body'];
    }

    private function openRoom(): void
    {
        $this->open(self::$testDay . '/screening?reel=' . self::$reel);
        $this->until(
            fn(): bool => (int) $this->js('return document.querySelector(".room")?.dataset.frame || 0') > 3,
            'the reel does not play',
        );
        $this->readScreens();
    }

    /** Where a page stands, once it does: what a key moved is shown with the display's next picture. */
    private function standing(string $page): int
    {
        [$at, $since] = [-1, 0];
        $this->until(function () use ($page, &$at, &$since): bool {
            [$now, $isPlaying] = $this->js(
                'const { at, playing } = document.querySelector(arguments[0]).dataset; return [Number(at), playing]',
                $page,
            );
            $since = $now === $at && $isPlaying === 'false' ? $since + 1 : 0;
            $at = $now;

            return $since >= 8;
        }, "$page does not stand");

        return $at;
    }

    private function readScreens(): void
    {
        $this->readNumbers(TestCards::BITS);
        $this->js((string) file_get_contents(__DIR__ . '/Support/js/screens.js'));
    }

    /** Opens another window beside the desk. */
    private function beside(string $path): string
    {
        $this->chrome()->driver->switchTo()->newWindow('window');
        $this->open($path);

        return $this->chrome()->driver->getWindowHandle();
    }

    private function at(string $window): void
    {
        $this->chrome()->driver->switchTo()->window($window);
    }

    /** @return list<array{float, int|null, float}> moment, number of the picture, place; of the last second or two */
    private function seen(string $window): array
    {
        $this->at($window);

        return $this->js('return window.seen.slice(-150)');
    }

    /**
     * What two windows showed at the same moments.
     *
     * @return list<array{int, int}> their numbers
     */
    private function together(string $first, string $second): array
    {
        [$one, $two] = [$this->seen($first), $this->seen($second)];
        // Both are looked at in turn, so what both still know is compared.
        $one = $this->seen($first);
        $pairs = [];
        foreach ($two as [$moment, $number]) {
            $near = null;
            foreach ($one as [$other, $its]) {
                if ($its !== null && abs($other - $moment) < 9 && ($near === null || abs($other - $moment) < abs($near[0] - $moment))) {
                    $near = [$other, $its];
                }
            }
            if ($near !== null && $number !== null) {
                $pairs[] = [$near[1], $number];
            }
        }

        return $pairs;
    }

    public function test_the_house_shows_the_desks_frame_while_it_plays_and_when_it_stands(): void
    {
        $this->openRoom();
        $house = $this->beside("/house/{$this->production()}");
        $this->see('.house[data-curtain=picture]');
        $this->readScreens();
        $this->inRealTime(function () use ($house): void {
            $this->at(self::$desk);
            $this->press('k', WebDriverKeys::HOME, ' ');
            // Both fetch and decode where they were sent; what counts is what is seen from the desk's word on.
            $this->until(
                fn(): bool => $this->js('const { house, playing } = document.querySelector(".room").dataset; return house + playing') ===
                    'in steptrue',
                'the house does not come into step',
            );
            // The desk may have had that word from before it played.
            $this->at($house);
            $this->until(fn(): bool => (int) $this->js('return window.numberSeen()') > 0, 'the house stands at the first picture');
            foreach ([$house, self::$desk] as $window) {
                $this->at($window);
                $this->js('window.seen.length = 0');
            }
            $this->jsAsync('setTimeout(arguments[0], 3000)', 20);
            $pairs = $this->together(self::$desk, $house);
            self::assertGreaterThan(25, count($pairs), 'both play');
            // A busy machine draws one late now and then; `bench screening` counts each.
            $apart = array_filter($pairs, static fn(array $pair): bool => abs($pair[0] - $pair[1]) > 1);
            self::assertLessThanOrEqual(0.1 * count($pairs), count($apart), json_encode(array_values($apart)));
        });
        $this->at(self::$desk);
        $this->press('k');
        foreach (["'", '.', '.', 'a', '"'] as $key) {
            $this->press($key);
        }
        $number = fn(): mixed => $this->js('return window.numberSeen()');
        $at = $this->standing('.room');
        $this->until(fn(): bool => $number() !== null, 'the desk shows no picture');
        $shown = $number();
        $this->at($house);
        $this->until(
            fn(): bool => (int) $this->js('return Number(document.querySelector(".house").dataset.at)') === $at && $number() === $shown,
            'the house stands elsewhere',
        );
    }

    public function test_either_window_is_loaded_again_and_the_house_goes_blank_on_command(): void
    {
        $this->openRoom();
        $house = $this->beside("/house/{$this->production()}");
        $this->see('.house[data-curtain=picture]');
        $this->at(self::$desk);
        $this->press('k', "'", '.', '.', '.');
        $at = fn(string $page): int => (int) $this->js('return Number(document.querySelector(arguments[0])?.dataset.at ?? -1)', $page);
        $stands = $this->standing('.room');
        self::assertGreaterThan(0, $stands);
        $this->press('b');
        $this->see('.room .chip', 'The house sees nothing');
        $this->at($house);
        $this->see('.house[data-curtain=blank]');
        $this->chrome()->driver->navigate()->refresh();
        $this->see('.house[data-curtain=blank]');
        $this->until(fn(): bool => $at('.house') === $stands, 'the house forgot where it was');
        $this->at(self::$desk);
        $this->press('b');
        $this->until(
            fn(): bool => str_contains((string) $this->js('return JSON.stringify(Object.values(sessionStorage))'), (string) $stands),
            'the place is not kept',
        );
        $this->chrome()->driver->navigate()->refresh();
        $this->until(fn(): bool => $at('.room') === $stands, 'the desk forgot where it was');
        $this->at($house);
        $this->see('.house[data-curtain=picture]');
        self::assertSame($stands, $at('.house'));
    }

    public function test_a_note_made_while_it_plays_lands_on_the_frame_that_was_seen(): void
    {
        $this->openRoom();
        $this->press('k', WebDriverKeys::HOME, ' ');
        $this->until(fn(): bool => (int) $this->js('return document.querySelector(".room").dataset.frame') > 20, 'it does not play');
        $this->press(WebDriverKeys::ENTER);
        $this->until(fn(): bool => $this->js('return document.activeElement.tagName') === 'INPUT', 'no note');
        ['number' => $number] = $this->js('return window.atKey');
        $this->press(...mb_str_split('A gull'));
        $this->until(
            fn(): bool => (int) $this->js('return document.querySelector(".room").dataset.frame') > $number + 5,
            'it stands while the note is written',
        );
        $this->press(WebDriverKeys::ENTER);
        $this->see('.ant-message', 'Noted at');
        $item = $this->ask('GET', 'reels/' . self::$reel)['items'][0];
        self::assertSame('A gull', $item['notes'][0]['text']);
        $rate = $item['angles'][0]['rate'];
        $frame = $item['notes'][0]['at_ticks'] / ((705_600_000 * $rate['den']) / $rate['num']);
        self::assertEqualsWithDelta($number, $frame, 1.01, 'the picture that was on the screen as the key went down');
    }

    public function test_somebody_with_a_link_follows_the_room_and_a_link_that_was_ended_shows_nothing(): void
    {
        $link = $this->ask('POST', 'reels/' . self::$reel . '/links', ['for_name' => 'Dora Winterfeld', 'hours' => 2]);
        $this->openRoom();
        $this->press('w');
        $this->see('.room .chip', 'Others follow');
        $guest = $this->beside("/watch/{$link['secret']}");
        $this->see('.door', 'for Dora Winterfeld');
        $this->reach('the door of a link');
        $this->click('.door button', 'Watch');
        $this->see('.guest[data-together=true]');
        $this->see('.guest .name', 'Dora Winterfeld');
        $this->readScreens();
        $this->inRealTime(function () use ($guest): void {
            $this->at(self::$desk);
            $this->press('k', WebDriverKeys::HOME, ' ');
            $this->jsAsync('setTimeout(arguments[0], 3000)', 20);
            $pairs = $this->together(self::$desk, $guest);
            self::assertGreaterThan(25, count($pairs), 'both play');
            foreach ($pairs as [$desk, $there]) {
                // Half a second of 24 frames to the second.
                self::assertLessThan(12, abs($desk - $there));
            }
        });
        $this->at(self::$desk);
        $this->press('k', WebDriverKeys::HOME, '.', '.', '.');
        $this->until(function () use ($guest): bool {
            $this->at(self::$desk);
            [$stands, $isPlaying] = $this->js(
                'return [document.querySelector(".room").dataset.at, document.querySelector(".room").dataset.playing]',
            );
            $this->at($guest);

            return $isPlaying === 'false' && $this->js('return document.querySelector(".guest").dataset.at') === $stands;
        }, 'who follows stands elsewhere');
        $this->at(self::$desk);
        $this->ask('DELETE', 'reels/' . self::$reel . "/links/{$link['ulid']}");
        $this->at($guest);
        $this->reach('what a guest watches');
        $this->chrome()->driver->navigate()->refresh();
        $this->see('.door [role=alert]', 'This link has ended.');
        $this->reach('a link that has ended');
    }

    public function test_a_reel_is_made_arranged_and_watched_to_its_end_by_keys_alone(): void
    {
        $this->open(self::$testDay . '/screening');
        $this->see('.reels', 'Numbers');
        $this->press('n');
        $this->see('.ant-modal .found', 'take');
        $this->press(WebDriverKeys::ESCAPE);
        $this->seeNo('.ant-modal-wrap:not([style*="display: none"])');
        $slates = fn(): string => (string) $this->js(
            'return [...document.querySelectorAll(".takes .slate")].map((one) => one.textContent.trim()).join(" ")',
        );
        $this->see('.takes .slate');
        $before = $slates();
        $this->press(WebDriverKeys::ALT . WebDriverKeys::ARROW_DOWN . WebDriverKeys::ALT);
        $this->until(fn(): bool => $slates() !== $before, 'the take stays where it was');
        $this->press(WebDriverKeys::DELETE);
        $this->see('.left-out .chip');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->seeNo('.left-out .chip');
        $this->press(WebDriverKeys::CONTROL . 'z' . WebDriverKeys::CONTROL);
        $this->until(fn(): bool => $slates() === $before, 'the order does not come back');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.room');
        $this->until(fn(): bool => (int) $this->js('return document.querySelector(".room").dataset.frame || 0') > 3, 'it does not play');
        $this->press('k');
        $this->reach('the dark room');
        $this->press('g');
        $this->see('.ask input');
        $this->press(...mb_str_split('/4'), ...[WebDriverKeys::ENTER]);
        $this->until(
            fn(): bool => $this->js('return document.querySelector(".room").dataset.item') === '3',
            'the last take is not gone to',
        );
        $this->press('v');
        $this->until(
            fn(): bool => (int) $this->js('return document.querySelectorAll(".screens canvas").length') === 2,
            'nothing stands beside it',
        );
        $this->press('v', WebDriverKeys::END, ' ');
        $this->see('.room .card', 'End of the reel');
        $this->press(WebDriverKeys::ESCAPE);
        $this->see('.reels', 'Numbers');
        $this->reach('the reels');
    }
}
