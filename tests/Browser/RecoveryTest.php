<?php

declare(strict_types=1);

namespace Tests\Browser;

use Cartella\Core\Custody\Verify;
use Facebook\WebDriver\WebDriverKeys;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\BrowserTestCase;
use Tests\Browser\Support\CutReading;
use Tests\Browser\Support\SixtyClips;

/** Whatever dies in the middle of a card: the person sees the card come in all the same. */
final class RecoveryTest extends BrowserTestCase
{
    use CutReading;

    private const FILES = 2000;

    /** What is killed, one after the other; a copy worker most often: it is the one that writes. */
    private const VICTIMS = [
        'copy:copy-0 copy:copy-1',
        'php',
        'copy:copy-0 copy:copy-1',
        'mariadb',
        'copy:copy-0 copy:copy-1',
        'mariadb',
        'copy:copy-0 copy:copy-1',
    ];

    public function test_a_copy_whose_worker_server_or_database_is_killed_again_and_again_ends_with_every_file_verified(): void
    {
        $card = self::bench() . '/.B081';
        mkdir($card);
        for ($file = 0; $file < self::FILES; $file++) {
            file_put_contents(sprintf('%s/C%04d.bin', $card, $file), random_bytes(60_000));
        }
        rename($card, self::bench() . '/B081');
        $this->signIn('rosa');
        $this->press('2');
        $this->chooseCard('B081');
        $this->see('aside h2', 'B081, in a reader');
        $this->click('aside .big');
        foreach (self::VICTIMS as $number => $victims) {
            $this->until(fn(): bool => $this->parts() > $number * 100 || $this->isWhole(), 'nothing is copied', 60);
            $was = $number === 2 ? self::atTheCopy() : null;
            foreach (explode(' ', $victims) as $victim) {
                if (($process = self::process($victim)) > 1) {
                    posix_kill($process, SIGKILL);
                }
            }
            if ($number === 2) {
                $this->until(static fn(): bool => !in_array(self::atTheCopy(), [null, $was], true), 'nothing is copied again', 90);
                $this->outlastAHangingDisk();
            }
        }
        $this->until(fn(): bool => $this->isWhole(), 'the card does not come in', 180);
        foreach (['shuttle-1', 'nearline'] as $store) {
            $folders = glob(getenv('CARTELLA_VAR') . "/stores/$store/Low Water/Day */B/B081") ?: [];
            self::assertCount(1, $folders);
            $answer = Verify::folder($folders[0]);
            self::assertTrue($answer['ok'], (string) json_encode($answer));
            self::assertCount(self::FILES + 1, array_diff(scandir($folders[0]) ?: [], ['.', '..']), 'every file once, and the manifests');
        }
    }

    public function test_a_line_up_whose_worker_is_killed_in_the_middle_goes_on_and_ends(): void
    {
        $this->signIn('rosa');
        $this->press('4');
        $this->see('.placed', null, 30);
        $this->press(WebDriverKeys::SHIFT . WebDriverKeys::ENTER . WebDriverKeys::SHIFT);
        $this->see('.busy .progress');
        foreach (['work:work-0', 'work:work-1'] as $victim) {
            self::assertGreaterThan(1, self::process($victim), "$victim runs");
            posix_kill(self::process($victim), SIGKILL);
        }
        $this->until(
            fn(): bool => !str_contains($this->text('.left'), 'comparing') &&
                (bool) $this->js('return document.querySelector(".busy .progress") === null'),
            'it does not end',
            240,
        );
        $this->see('.bar .pill', '42 placed');
        $this->press('r');
        $this->see('.runs li', 'Run 2', 30);
    }

    /** A worker that waits for its disk is not dead: nobody else begins the card, and the desk answers meanwhile. */
    private function outlastAHangingDisk(): void
    {
        $tries = $this->tries();
        $workers = array_map(self::process(...), ['copy:copy-0', 'copy:copy-1']);
        foreach ($workers as $worker) {
            posix_kill($worker, SIGSTOP);
        }
        try {
            $recover = (new Process([PHP_BINARY, 'artisan', 'cartella:recover'], dirname(__DIR__, 2)))->mustRun();
            self::assertSame('', trim($recover->getOutput()), 'a second worker is sent for what one is at');
            $this->press('1');
            $this->see('main h2');
            $this->press('2');
            $this->see('.card', 'B081');
            self::assertSame($tries, $this->tries());
        } finally {
            foreach ($workers as $worker) {
                posix_kill($worker, SIGCONT);
            }
        }
    }

    /** The database's number for the worker that is at the copy of the card; null while nobody is. */
    private static function atTheCopy(): ?int
    {
        $database = SixtyClips::database();
        $task = $database->query("SELECT MAX(id) FROM tasks WHERE kind = 'offload' AND title LIKE '%B081%'")->fetchColumn();
        $desk = substr(hash('xxh64', (string) getenv('DB_DATABASE')), 0, 8);
        $held = $database->query("SELECT IS_USED_LOCK('cartella.$desk.task.$task')")->fetchColumn();

        return $held === null ? null : (int) $held;
    }

    /** How often the copy of the card was begun. */
    private function tries(): int
    {
        foreach ($this->asked('tasks')['tasks'] as $task) {
            if ($task['kind'] === 'offload' && str_contains($task['title'], 'B081')) {
                return $task['tries'];
            }
        }
        self::fail('the copy is in no list of work');
    }

    private static function process(string $service): int
    {
        $process = new Process(['supervisorctl', '-c', getenv('RUN') . '/supervisord.conf', 'pid', $service]);
        $process->run();

        return (int) trim($process->getOutput());
    }

    private function isWhole(): bool
    {
        return (bool) $this->js(
            'return [...document.querySelectorAll(".card")].some((card) => card.textContent.includes("B081") && ' .
                'card.textContent.includes("VERIFIED"))',
        );
    }

    /** Files of the card at the first destination, with those that are not verified yet. */
    private function parts(): int
    {
        $folder = (glob(getenv('CARTELLA_VAR') . '/stores/shuttle-1/Low Water/Day */B/B081') ?: [null])[0];

        return $folder === null ? 0 : count(@scandir($folder) ?: []) + count(@scandir($folder . '/ascmhl/.offload') ?: []);
    }
}
