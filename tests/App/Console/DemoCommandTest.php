<?php

declare(strict_types=1);

namespace Tests\App\Console;

use App\Console\BuildDemo;
use App\Models\Production;
use App\Models\User;
use App\Support\OwnFolder;
use App\Support\Problem;
use Tests\App\TestCase;

/** The demo empties folders, so it must never meet a folder of anybody's. */
final class DemoCommandTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        Production::query()->delete();
        User::query()->delete();
    }

    /** @return array<string, array{string}> */
    public static function settings(): array
    {
        return [
            'the readers' => ['cartella.bench'],
            'a volume for copies' => ['cartella.stores.two.path'],
            'the inbox' => ['cartella.inbox'],
        ];
    }

    #[\PHPUnit\Framework\Attributes\DataProvider('settings')]
    public function test_a_real_volume_in_the_settings_is_refused_and_nothing_of_it_goes(string $setting): void
    {
        $real = dirname($this->folder) . '/' . basename($this->folder) . '-real';
        mkdir($real . '/A001', 0777, true);
        file_put_contents($real . '/A001/only copy.mov', 'irreplaceable');
        config([$setting => $real]);
        try {
            $this->artisan('cartella:demo')->expectsOutputToContain('may be a real volume')->assertExitCode(BuildDemo::REFUSED);
            self::assertStringEqualsFile($real . '/A001/only copy.mov', 'irreplaceable');
        } finally {
            (new \Symfony\Component\Process\Process(['rm', '-rf', $real]))->mustRun();
        }
    }

    public function test_a_folder_below_its_own_that_it_did_not_make_is_left_alone(): void
    {
        file_put_contents($this->folder . '/bench/card.txt', 'somebody put it here');
        $this->artisan('cartella:demo')->expectsOutputToContain('did not put there')->assertExitCode(BuildDemo::REFUSED);
        self::assertFileExists($this->folder . '/bench/card.txt');
    }

    public function test_a_link_out_of_its_own_folder_is_no_folder_of_its_own(): void
    {
        rmdir($this->folder . '/inbox');
        mkdir($this->folder . '-elsewhere');
        symlink($this->folder . '-elsewhere', $this->folder . '/inbox');
        $this->artisan('cartella:demo')->assertExitCode(BuildDemo::REFUSED);
        rmdir($this->folder . '-elsewhere');
    }

    public function test_it_is_refused_where_other_machines_reach_the_published_log_ins(): void
    {
        config(['cartella.web_host' => '0.0.0.0']);
        $this->artisan('cartella:demo')->expectsOutputToContain('passwords of the demo are published')->assertExitCode(BuildDemo::REFUSED);
        $demo = User::query()->create([
            'name' => 'Rosa',
            'email' => 'rosa@lowwater.test',
            'password' => 'tide-mill',
            'role' => 'assistant',
            'is_demo' => true,
        ]);
        $this->postJson('/api/session', ['email' => $demo->email, 'password' => 'tide-mill'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'session.demo');
        config(['cartella.web_host' => '127.0.0.1']);
        $this->postJson('/api/session', ['email' => $demo->email, 'password' => 'tide-mill'])->assertOk();
    }

    public function test_only_a_folder_with_its_mark_is_emptied(): void
    {
        mkdir($this->folder . '/mine');
        file_put_contents($this->folder . '/mine/kept.txt', 'x');
        foreach ([OwnFolder::clear(...), OwnFolder::make(...), OwnFolder::remove(...)] as $act) {
            try {
                $act($this->folder . '/mine');
                self::fail('It was taken for its own.');
            } catch (Problem $refusal) {
                self::assertSame('folder.foreign', $refusal->problemCode);
            }
        }
        OwnFolder::make($this->folder . '/made');
        mkdir($this->folder . '/made/a');
        symlink($this->folder . '/mine', $this->folder . '/made/a/link');
        OwnFolder::clear($this->folder . '/made');
        self::assertSame([OwnFolder::MARKER], array_values(array_diff(scandir($this->folder . '/made') ?: [], ['.', '..'])));
        self::assertFileExists($this->folder . '/mine/kept.txt', 'what a link points at is not of the folder');
    }
}
