<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use Cartella\Core\Process;
use PHPUnit\Framework\TestCase;

/** What the desk starts is there on a machine that has nothing but a clone: git keeps no empty folder. */
final class ServicesTest extends TestCase
{
    public function test_every_file_and_folder_that_a_service_is_started_with_is_in_the_repository(): void
    {
        $root = dirname(__DIR__, 3);
        preg_match_all('/^command=(.+)$/m', (string) file_get_contents("$root/config/services/supervisord.conf"), $commands);
        $named = [];
        foreach ($commands[1] as $command) {
            foreach (preg_split('/\s+/', $command) ?: [] as $word) {
                if (preg_match('#^[a-z][\w-]*(/[\w.-]+)+$#', $word) === 1) {
                    $named[$word] = true;
                }
            }
        }
        self::assertGreaterThan(2, count($named), 'the commands are read');
        foreach (array_keys($named) as $path) {
            self::assertFileExists("$root/$path");
            $listed = Process::run(['git', '-c', 'safe.directory=*', '-C', $root, 'ls-files', '--', $path]);
            // A copy that is no clone shows what it was packed with.
            if ($listed['status'] === 0) {
                self::assertNotSame('', trim($listed['output']), "$path is not in the repository");
            }
        }
    }
}
