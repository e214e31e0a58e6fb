<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use Illuminate\Filesystem\Filesystem;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The page of the stand-in bench, which could eject cards: who may open it, and which folders it may touch. */
final class PanelTest extends TestCase
{
    private string $folder;

    private Process $server;

    private int $port;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir() . '/cartella-panel-' . bin2hex(random_bytes(6));
        mkdir("$this->folder/volumes", 0777, true);
        touch("$this->folder/volumes/.cartella-made");
        $free = stream_socket_server('tcp://127.0.0.1:0') ?: self::fail('There is no free port.');
        $this->port = (int) substr((string) strrchr((string) stream_socket_get_name($free, false), ':'), 1);
        fclose($free);
        $this->server = new Process([PHP_BINARY, '-S', "127.0.0.1:$this->port", 'standins/panel.php'], dirname(__DIR__, 3), [
            'CARTELLA_VAR' => $this->folder,
            'CARTELLA_PANEL_TOKEN' => 'right',
        ]);
        $this->server->start();
        $this->server->waitUntil(static fn(string $type, string $output): bool => str_contains($output, 'started'));
    }

    protected function tearDown(): void
    {
        $this->server->stop(0);
        (new Filesystem())->deleteDirectory($this->folder);
    }

    /** @param  list<string>  $headers */
    private function answerTo(string $path, array $headers = [], ?string $post = null): int
    {
        $curl = curl_init("http://127.0.0.1:$this->port$path");
        curl_setopt_array(
            $curl,
            [CURLOPT_RETURNTRANSFER => true, CURLOPT_HTTPHEADER => $headers] + ($post === null ? [] : [CURLOPT_POSTFIELDS => $post]),
        );
        curl_exec($curl);

        return curl_getinfo($curl, CURLINFO_RESPONSE_CODE);
    }

    public function test_it_opens_with_its_token_and_by_its_own_name_only(): void
    {
        self::assertSame(200, $this->answerTo('/?token=right'));
        self::assertSame(403, $this->answerTo('/'));
        self::assertSame(403, $this->answerTo('/?token=wrong'));
        self::assertSame(403, $this->answerTo('/?token[]=right'));
        self::assertSame(403, $this->answerTo('/?token=right', ["Host: rebound.example:$this->port"]));
    }

    public function test_only_the_panel_itself_presses_its_buttons(): void
    {
        mkdir("$this->folder/volumes/A777");
        touch("$this->folder/volumes/.standin-A777");
        self::assertSame(403, $this->answerTo('/', ['Cookie: panel=right', 'Origin: http://elsewhere.example'], 'do=eject&card=A777'));
        self::assertSame(
            403,
            $this->answerTo('/', ['Cookie: panel=right'], 'do=eject&card=A777'),
            'nor a page that hides where it comes from',
        );
        self::assertDirectoryExists("$this->folder/volumes/A777");
        self::assertSame(303, $this->answerTo('/', ['Cookie: panel=right', "Origin: http://127.0.0.1:$this->port"], 'do=eject&card=A777'));
        clearstatcache();
        self::assertDirectoryDoesNotExist("$this->folder/volumes/A777");
    }

    public function test_a_volume_that_it_did_not_put_there_stays(): void
    {
        mkdir("$this->folder/volumes/REAL");
        self::assertSame(303, $this->answerTo('/', ['Cookie: panel=right', "Origin: http://127.0.0.1:$this->port"], 'do=eject&card=REAL'));
        self::assertDirectoryExists("$this->folder/volumes/REAL");
    }

    public function test_a_folder_that_the_demo_did_not_make_is_not_touched(): void
    {
        unlink("$this->folder/volumes/.cartella-made");
        self::assertSame(403, $this->answerTo('/?token=right'));
    }
}
