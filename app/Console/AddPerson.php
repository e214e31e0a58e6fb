<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Support\Str;

/** Adds somebody who can sign in, and prints their first password; with --first only when nobody can yet. */
final class AddPerson extends Command
{
    protected $signature =
        'cartella:person {email} {name} {role : assistant, editor, reviewer or admin} {--production=* : ' .
        'names of productions} {--first}';

    protected $description = 'Add somebody who can sign in';

    public function handle(): int
    {
        if ($this->option('first') && User::query()->exists()) {
            return self::SUCCESS;
        }
        $role = Role::tryFrom((string) $this->argument('role'));
        if ($role === null || filter_var($this->argument('email'), FILTER_VALIDATE_EMAIL) === false) {
            $this->error('Give an e-mail address, a name, and a role: assistant, editor, reviewer or admin.');

            return self::INVALID;
        }
        if (User::query()->where('email', $this->argument('email'))->exists()) {
            $this->error('Somebody has that address already.');

            return self::FAILURE;
        }
        $password = Str::password(14, symbols: false);
        $user = User::query()->create([
            'email' => $this->argument('email'),
            'name' => $this->argument('name'),
            'role' => $role,
            'password' => $password,
        ]);
        $user->productions()->attach(Production::query()->whereIn('name', $this->option('production'))->pluck('id'));
        $this->line(sprintf('%s (%s) signs in as %s with the password %s', $user->name, $role->value, $user->email, $password));

        return self::SUCCESS;
    }
}
