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
}
