<?php

declare(strict_types=1);

namespace Cartella\Core\Tests;

use Cartella\Core\Process;
use PHPUnit\Framework\TestCase;

final class ProcessTest extends TestCase
{
    public function test_words_reach_the_program_as_they_are_and_no_shell_reads_them(): void
    {
        $run = Process::run(['printf', '%s|', '$(id)', '; rm -rf /', '`x`', "a\nb", '*']);
        self::assertSame(['status' => 0, 'output' => "$(id)|; rm -rf /|`x`|a\nb|*|", 'error' => ''], $run);
    }

    public function test_a_program_that_takes_too_long_is_killed_and_says_so(): void
    {
        $run = Process::run(['sleep', '60'], limitSeconds: 1);
        self::assertSame(-1, $run['status']);
        self::assertSame('it took longer than 1 s', $run['error']);
    }

    public function test_a_program_that_writes_without_end_is_killed(): void
    {
        $run = Process::run(['yes'], outputLimit: 1 << 20, limitSeconds: 30);
        self::assertSame([-1, 'it wrote too much'], [$run['status'], $run['error']]);
    }

    public function test_output_comes_in_pieces_and_errors_are_kept_apart(): void
    {
        $bytes = 0;
        $run = Process::run(['sh', '-c', 'head -c 3000000 /dev/zero; echo trouble >&2; exit 3'], static function (string $piece) use (&$bytes): void {
            $bytes += strlen($piece);
        });
        self::assertSame([3, '', 'trouble', 3_000_000], [$run['status'], $run['output'], $run['error'], $bytes]);
    }

    public function test_a_program_that_is_not_there_is_an_answer_and_not_an_end(): void
    {
        $run = Process::run(['/nowhere/at/all']);
        self::assertNotSame(0, $run['status']);
    }

    public function test_the_program_gets_no_input_to_wait_for(): void
    {
        self::assertSame(['status' => 0, 'output' => '', 'error' => ''], Process::run(['cat'], limitSeconds: 10));
    }
}
