<?php

declare(strict_types=1);

namespace Cartella\Core\Tests;

use Cartella\Core\Process;
use PHPUnit\Framework\TestCase;

final class ProcessTest extends TestCase
{
    public function test_several_programs_end_each_with_its_own_status_and_words(): void
    {
        $ended = Process::several(
            [
                'good' => ['php', '-n', '-r', 'exit(0);'],
                'bad' => ['php', '-n', '-r', 'fwrite(STDERR, "it is broken"); exit(3);'],
                'none' => ['/nowhere/program'],
                '7' => ['php', '-n', '-r', 'echo str_repeat("x", 200000);'],
            ],
            2,
        );
        self::assertSame(['status' => 0, 'error' => ''], $ended['good']);
        self::assertSame(['status' => 3, 'error' => 'it is broken'], $ended['bad']);
        self::assertNotSame(0, $ended['none']['status']);
        self::assertSame(0, $ended['7']['status'], 'output that nobody reads holds nobody up');
    }

    public function test_a_program_that_takes_too_long_is_ended_and_the_others_are_not(): void
    {
        $ended = Process::several(
            ['endless' => ['php', '-n', '-r', 'while (true) { usleep(1000); }'], 'quick' => ['php', '-n', '-r', 'exit(0);']],
            2,
            1,
        );
        self::assertSame(-1, $ended['endless']['status']);
        self::assertStringContainsString('longer than 1 s', $ended['endless']['error']);
        self::assertSame(0, $ended['quick']['status']);
    }

    public function test_a_program_runs_beside_what_is_done_here_and_both_answer(): void
    {
        $both = Process::beside([PHP_BINARY, '-r', 'fwrite(STDERR, "ready"); exit(3);'], static fn(): int => 5);
        self::assertSame(['status' => 3, 'error' => 'ready', 'meanwhile' => 5], $both);
    }

    public function test_a_program_is_ended_where_what_is_done_beside_it_fails(): void
    {
        $pid = tempnam(sys_get_temp_dir(), 'pid');
        try {
            Process::beside([PHP_BINARY, '-r', "file_put_contents('$pid', getmypid()); sleep(60);"], static function () use ($pid): void {
                while (filesize($pid) === 0) {
                    clearstatcache();
                }
                throw new \RuntimeException('no more');
            });
            self::fail('it went on');
        } catch (\RuntimeException) {
            self::assertFileDoesNotExist('/proc/' . file_get_contents($pid));
        } finally {
            unlink($pid);
        }
    }
}
