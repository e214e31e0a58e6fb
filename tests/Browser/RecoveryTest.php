<?php

declare(strict_types=1);

namespace Tests\Browser;

use Cartella\Core\Custody\Verify;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\BrowserTestCase;

/** A worker that dies in the middle of a card: the person sees the card come in all the same. */
final class RecoveryTest extends BrowserTestCase
{
    public function test_a_copy_whose_worker_is_killed_again_and_again_ends_with_every_file_verified(): void
    {
        $card = self::bench().'/.B081';
        mkdir($card);
        for ($file = 0; $file < 400; $file++) {
            file_put_contents(sprintf('%s/C%03d.bin', $card, $file), random_bytes(200_000));
        }
        rename($card, self::bench().'/B081');
        $this->signIn('rosa');
        $this->press('2');
        $this->click('.card.new', 'B081');
        $this->see('aside h2', 'B081, on the bench');
        $this->click('aside .big');
        for ($kill = 0; $kill < 3; $kill++) {
            $this->until(fn (): bool => $this->verified() > 40 * ($kill + 1) || $this->isWhole(), 'nothing is copied', 60);
            $pid = trim((new Process(['supervisorctl', '-c', getenv('RUN').'/supervisord.conf', 'pid', 'copy']))->mustRun()->getOutput());
            if ((int) $pid > 1) {
                posix_kill((int) $pid, SIGKILL);
            }
        }
        $this->until(fn (): bool => $this->isWhole(), 'the card does not come in', 120);
        foreach (['shuttle-1', 'nearline'] as $store) {
            $folders = glob(getenv('CARTELLA_VAR')."/stores/$store/Low Water/Day */B/B081") ?: [];
            self::assertCount(1, $folders);
            $answer = Verify::folder($folders[0]);
            self::assertTrue($answer['ok'], (string) json_encode($answer));
            self::assertCount(400, glob($folders[0].'/C*.bin') ?: []);
            self::assertSame([], glob($folders[0].'/.cartella-*') ?: []);
        }
    }

    private function isWhole(): bool
    {
        return (bool) $this->js('return [...document.querySelectorAll(".card")].some((card) => card.textContent.includes("B081") && card.textContent.includes("VERIFIED"))');
    }

    /** Files that the page says are done. */
    private function verified(): int
    {
        return (int) $this->js('const card = [...document.querySelectorAll(".card")].find((one) => one.textContent.includes("B081")); return card?.querySelector(".facts b")?.textContent ?? 0');
    }
}
