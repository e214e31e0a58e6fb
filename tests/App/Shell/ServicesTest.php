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

    /** @return array{status: int, policy: string} what pages may ask for, as the web server says it */
    private function written(string $endpoint): array
    {
        $root = dirname(__DIR__, 3);
        $run = sys_get_temp_dir() . '/cartella-services-' . bin2hex(random_bytes(6));
        mkdir($run);
        preg_match_all(
            '/\{\{([A-Z_]+)\}\}/',
            implode('', array_map(file_get_contents(...), glob("$root/config/services/*.conf") ?: [])),
            $names,
        );
        $environment = ['RUN' => $run, 'CARTELLA_ROOT' => $root, 'CARTELLA_MEDIA' => 's3', 'S3_ENDPOINT' => $endpoint];
        $environment += array_fill_keys($names[1], 'x') + ['PATH' => (string) getenv('PATH')];
        $done = Process::run([
            'env',
            '-i',
            ...array_map(static fn(string $k, string $v): string => "$k=$v", array_keys($environment), $environment),
            PHP_BINARY,
            "$root/scripts/write-config.php",
        ]);
        preg_match('/Content-Security-Policy "(default-src .self.[^"]*)"/', (string) @file_get_contents("$run/nginx.conf"), $found);
        Process::run(['rm', '-rf', '--', $run]);

        return ['status' => $done['status'], 'policy' => $found[1] ?? ''];
    }

    public function test_pages_may_ask_the_store_of_the_bucket_and_nobody_else_for_media(): void
    {
        ['policy' => $policy] = $this->written('https://media.lowwater.test:9000/path');
        self::assertStringContainsString("connect-src 'self' https://media.lowwater.test:9000;", $policy);
        self::assertStringContainsString("script-src 'self';", $policy);
        $hostile = $this->written('https://media.lowwater.test; script-src *');
        self::assertNotSame(0, $hostile['status']);
        self::assertSame('', $hostile['policy']);
    }
}
