<?php

declare(strict_types=1);

namespace Tests\App\Console;

use App\Console\BuildDemo;
use App\Models\Production;
use App\Models\User;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Hash;
use Tests\App\TestCase;

final class CommandsTest extends TestCase
{
    public function test_the_demo_never_meets_somebodys_own_work(): void
    {
        $this->person();
        $this->artisan('cartella:demo')->expectsOutputToContain('The demo was left alone')->assertExitCode(BuildDemo::REFUSED);
        $this->artisan('cartella:demo --again')->expectsOutputToContain($this->production->name)->assertExitCode(BuildDemo::REFUSED);
        self::assertTrue(Production::query()->whereKey($this->production->id)->exists());
        self::assertSame(1, User::query()->count());
    }

    public function test_the_bench_fills_only_an_empty_database(): void
    {
        $this->artisan('cartella:bench-fill')->assertFailed();
    }

    public function test_a_person_is_added_with_a_password_that_works_and_only_once(): void
    {
        self::assertSame(
            0,
            Artisan::call('cartella:person', [
                'email' => 'new@example.test',
                'name' => 'New Person',
                'role' => 'editor',
                '--production' => [$this->production->name],
            ]),
        );
        preg_match('/password (\S+)/', Artisan::output(), $part);
        $user = User::query()->where('email', 'new@example.test')->sole();
        self::assertTrue(Hash::check($part[1], $user->password));
        self::assertTrue($user->productions->contains($this->production));
        $this->artisan('cartella:person', ['email' => 'new@example.test', 'name' => 'x', 'role' => 'editor'])->assertFailed();
        $this->artisan('cartella:person', ['email' => 'no address', 'name' => 'x', 'role' => 'editor'])->assertExitCode(2);
        $this->artisan('cartella:person', ['email' => 'a@example.test', 'name' => 'x', 'role' => 'king'])->assertExitCode(2);
        $this->artisan('cartella:person', [
            'email' => 'first@example.test',
            'name' => 'x',
            'role' => 'admin',
            '--first' => true,
        ])->assertOk();
        self::assertFalse(User::query()->where('email', 'first@example.test')->exists(), 'the first is the first');
    }
}
