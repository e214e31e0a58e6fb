<?php

declare(strict_types=1);

namespace App\Console;

use Illuminate\Console\Command;
use Illuminate\Database\Migrations\Migrator;

/** Says whether tables have to change: `none`, `fresh` where there are none yet, or the name of the last change to come. */
final class PendingMigrations extends Command
{
    protected $signature = 'cartella:pending {--last : the last one that was made}';

    protected $description = 'Say whether the database tables have to change';

    public function handle(): int
    {
        /** @var Migrator $migrator */
        $migrator = app('migrator');
        $ran = $migrator->repositoryExists() ? $migrator->getRepository()->getRan() : [];
        if ($this->option('last')) {
            $this->line(end($ran) ?: 'none');

            return self::SUCCESS;
        }
        $open = array_diff(array_keys($migrator->getMigrationFiles([database_path('migrations')])), $ran);
        $this->line(
            match (true) {
                $open === [] => 'none',
                $ran === [] => 'fresh',
                default => (string) end($open),
            },
        );

        return self::SUCCESS;
    }
}
