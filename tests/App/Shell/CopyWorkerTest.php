<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** Copy workers are kept small by loading few extensions, which must be those that the custody of a card needs. */
final class CopyWorkerTest extends TestCase
{
    public function test_a_copy_worker_reads_a_manifest_tells_nanoseconds_and_reads_the_disk(): void
    {
        preg_match(
            '/^command=php (-n .*?) artisan queue:work --queue=copy/m',
            (string) file_get_contents(dirname(__DIR__, 3) . '/config/services/supervisord.conf'),
            $found,
        );
        $worker = new Process(
            [
                PHP_BINARY,
                ...explode(' ', $found[1] ?? self::fail('There is no copy worker.')),
                '-r',
                <<<'PHP'
                require 'vendor/autoload.php';
                file_put_contents($file = tempnam(sys_get_temp_dir(), 'cartella'), 'x');
                echo json_encode([
                    Cartella\Core\Xml::parse('<hashlist version="2.0"/>')->getName(),
                    preg_match('/\.\d{9}\./', (string) Cartella\Core\Custody\Internal\Libc::stamp($file)),
                    Cartella\Core\Custody\Internal\MediumHash::of($file, 'xxh128')[0] === hash('xxh128', 'x'),
                    Normalizer::normalize("e\u{301}"),
                ]);
                unlink($file);
                PHP
            ,
            ],
            dirname(__DIR__, 3),
        );
        $worker->mustRun();
        self::assertSame(['hashlist', 1, true, 'é'], json_decode($worker->getOutput(), true));
    }
}
