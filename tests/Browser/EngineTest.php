<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\TestCards;
use Tests\Browser\Support\TestDay;

/** The engine under every player, by itself: what it shows is read from the pictures, what it plays from the sound device. */
final class EngineTest extends BrowserTestCase
{
    use TestDay;

    private static bool $isOpen = false;

    protected function setUp(): void
    {
        parent::setUp();
        if (!self::$isOpen) {
            $this->openTestDay();
            $this->tapSound();
            // Browsers let a page be heard when a person has touched it.
            $this->click('.date.on');
        }
        self::$isOpen = true;
    }

    /** @return array<string, mixed> what a script of measuring gets */
    private function given(string ...$clips): array
    {
        return [
            'production' => $this->production(),
            'bits' => TestCards::BITS,
            'clips' => array_map($this->clipSheet(...), array_values($clips)),
        ];
    }

    public function test_over_fifty_cuts_between_rates_no_frame_is_repeated_or_missing(): void
    {
        $this->inRealTime(function (): void {
            $answer = $this->measure('cuts', $this->given('num25', 'num24', 'num50', 'num30'), 180);
            self::assertSame($answer['expected'], $answer['forward']);
            self::assertSame(array_reverse($answer['expected']), $answer['backward']);
            $places = array_column($answer['played'], 'place');
            self::assertSame(array_values(array_unique($places)), $places, 'played, none comes twice');
            foreach ($answer['played'] as $seen) {
                self::assertSame($seen['frame'], $seen['number'], 'and each is the one that it is said to be');
            }
            self::assertCount(51, array_unique(array_column($answer['played'], 'piece')), 'each piece is seen');
        });
    }

    public function test_nine_decks_stay_in_step_within_a_frame(): void
    {
        $this->inRealTime(function (): void {
            $answer = $this->measure('wall', $this->given('num25'), 120);
            self::assertGreaterThan(60, count($answer['moments']), 'they play');
            foreach ($answer['moments'] as $moment) {
                self::assertLessThanOrEqual(1, max($moment) - min($moment), json_encode($moment) ?: '');
            }
        });
    }

    public function test_sound_stays_within_20_ms_of_the_picture_for_a_minute_and_after_fifty_seeks(): void
    {
        $this->inRealTime(function (): void {
            // `CARTELLA_SYNC_SECONDS=600 ./cartella test browser --filter EngineTest` plays ten minutes.
            $seconds = (int) (getenv('CARTELLA_SYNC_SECONDS') ?: 60);
            $answer = $this->measure(
                'sync',
                ['clip' => $this->clipSheet('99_T01_A')['ulid'], 'seconds' => $seconds, 'seeks' => 50] + $this->given(),
                $seconds + 180,
            );
            foreach ($answer['clicks'] as $click) {
                self::assertEqualsWithDelta($click['flash'], $click['beep'], 0.005, 'the recorder\'s click lies under the camera\'s flash');
            }
            self::assertGreaterThanOrEqual(8, count($answer['played']), json_encode($answer['played']) ?: '');
            // A flash is looked at with each picture of the display, a sixtieth apart: by how much one is late says nothing, many do.
            self::assertEqualsWithDelta(0, self::middle($answer['played']), 0.02);
            self::assertEqualsWithDelta(0, self::middle(array_slice($answer['played'], -8)), 0.02, 'and at its end');
            self::assertGreaterThanOrEqual(40, count($answer['seeks']));
            self::assertEqualsWithDelta(0, self::middle($answer['seeks']), 0.02);
        });
    }

    /** @param  list<float>  $values */
    private static function middle(array $values): float
    {
        sort($values);

        return $values[intdiv(count($values), 2)] ?? INF;
    }

    public function test_a_channel_alone_is_heard_alone(): void
    {
        $this->inRealTime(function (): void {
            $answer = $this->measure('channels', ['clip' => $this->clipSheet('99-T01')['ulid']] + $this->given(), 60);
            // The first channel beeps at 0.6, the second hums at 0.09; twice as fast and backwards they are the same two.
            foreach (['1', '2x', '-1x'] as $how) {
                self::assertEqualsWithDelta(0.61, $answer["beep $how"], 0.08, "the beep alone, $how");
                self::assertEqualsWithDelta(0.09, $answer["hum $how"], 0.03, "the hum alone, $how");
            }
            self::assertLessThan(0.001, $answer['none'], 'no channel is silence');
            self::assertLessThan(0.001, $answer['8x'], 'eight times as fast is silent');
            self::assertGreaterThan(0.02, $answer['scrub'], 'a step is heard');
        });
    }
}
