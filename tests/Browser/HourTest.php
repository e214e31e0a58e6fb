<?php

declare(strict_types=1);

namespace Tests\Browser;

use Cartella\Core\Process;
use Cartella\Core\Tests\Support\WavBuilder;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\TestDay;

/** A recorder that ran for an hour, and a shot without sound in it. */
final class HourTest extends BrowserTestCase
{
    use TestDay;

    private const RATE = 8_000;

    /** Seconds into the recording at which somebody claps; the third is the shot's. */
    private const CLAPS = [180.0, 655.5, 1_203.72, 1_900.25, 2_480.0, 3_300.5];

    /** The frame of the shot at which its slate closes, 25 to the second. */
    private const FRAME = 63;

    /** Presses that 20 seconds leave at two a second. */
    private const PRESSES = 40;

    private static function hour(string $folder): void
    {
        mkdir($folder, 0777, true);
        // A room that is never quite the same, and claps in it; made in pieces, since an hour is long.
        mt_srand(4711);
        $noise = [];
        for ($n = 0; $n < self::RATE; $n++) {
            $noise[] = mt_rand(-220, 220);
        }
        $path = "$folder/hour.wav";
        $samples = '';
        for ($second = 0; $second < 3600; $second++) {
            $piece = array_map(static fn(int $value): int => (int) ($value * (1 + 0.4 * sin($second))), $noise);
            foreach (self::CLAPS as $clap) {
                for ($n = 0; (int) floor($clap) === $second && $n < 400; $n++) {
                    $at = (int) round(($clap - $second) * self::RATE) + $n;
                    if ($at < self::RATE) {
                        $piece[$at] = (int) (24_000 * exp(-$n / 60) * (mt_rand(-1000, 1000) / 1000));
                    }
                }
            }
            $samples .= pack('v*', ...array_map(static fn(int $value): int => $value & 0xffff, $piece));
        }
        WavBuilder::pcm(0, 1, 16, self::RATE, $samples)
            ->withBext(self::RATE * 10 * 3600)
            ->withIxml('<SPEED><TIMECODE_RATE>25/1</TIMECODE_RATE></SPEED>')
            ->write($path);
    }

    private static function shot(string $folder): void
    {
        mkdir($folder, 0777, true);
        $run = Process::run([
            'ffmpeg',
            '-v',
            'error',
            '-y',
            '-f',
            'lavfi',
            '-i',
            'testsrc2=size=320x180:rate=25',
            '-vf',
            sprintf("eq=brightness=-0.2,drawbox=c=white@1:t=fill:enable='eq(n\\,%d)'", self::FRAME),
            '-t',
            '10',
            // Its clock is 1.2 seconds behind the recorder's.
            '-timecode',
            '10:20:00:00',
            '-c:v',
            'libx264',
            '-preset',
            'ultrafast',
            '-pix_fmt',
            'yuv420p',
            "$folder/A095C001.mov",
        ]);
        self::assertSame(0, $run['status'], $run['error']);
    }

    public function test_a_shot_without_sound_is_placed_in_an_hour_of_it_by_a_few_keys(): void
    {
        self::hour(self::bench() . '/S095');
        self::shot(self::bench() . '/A095');
        $this->signIn('rosa');
        $this->addDay();
        $this->press('2');
        foreach (['A095', 'S095'] as $card) {
            $this->chooseCard($card);
            $this->see('aside h2', "$card, in a reader");
            $this->click('aside .big');
        }
        foreach (['A095', 'S095'] as $card) {
            $this->until(
                fn(): bool => (bool) $this->js(
                    'return [...document.querySelectorAll(".card")].some((card) => card.textContent.includes(arguments[0]) && ' .
                        'card.textContent.includes("VERIFIED") && !card.textContent.includes("cataloguing"))',
                    $card,
                ),
                "$card is not catalogued",
                180,
            );
        }
        $this->press('4');
        $this->click('button.go', 'Line up the day');
        $this->see('.placed', 'hour', 120);
        $this->seeNo('.busy .progress', 120);
        $presses = 0;
        $press = function (string ...$keys) use (&$presses): void {
            $presses += count($keys);
            $this->press(...$keys);
        };
        // The one that is not sure.
        $press('c');
        $this->until(fn(): bool => str_contains($this->text('aside h2'), 'A095C001'), 'the shot is not chosen');
        $press('h');
        $this->see('.hand .offers .on', null, 60);
        $this->until(
            fn(): bool => $this->text('[data-testid=hand-frame]') !== '' &&
                (int) substr($this->text('[data-testid=hand-frame]'), strlen('frame ')) === self::FRAME,
            'the slate is not offered first: ' . $this->text('[data-testid=hand-frame]'),
        );
        $this->until(
            fn(): bool => str_starts_with($this->text('[data-testid=hand-point]'), '20:03.7'),
            'the clap near where the shot should be is not offered first: ' . $this->text('[data-testid=hand-point]'),
        );
        $press(WebDriverKeys::ENTER);
        $this->see('.placed.on.locked');
        $lies = (int) $this->jsAsync(
            'const done = arguments[0]; const [, p, d] = location.pathname.split("/"); ' .
                'fetch(`/api/productions/${p}/days/${d}/lineup`).then((answer) => answer.json()).then((all) => { ' .
                'const at = (name) => all.placements.find((one) => one.name === name).start_ticks; ' .
                'done(at("A095C001") - at("hour")) })',
            10,
        );
        self::assertEqualsWithDelta((1_203.72 - self::FRAME / 25) * 705_600_000, $lies, 705_600_000 / 25, 'within a frame');
        self::assertLessThan(self::PRESSES, $presses);
    }
}
