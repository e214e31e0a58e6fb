<?php

declare(strict_types=1);

namespace App\Console;

use App\Support\ModelProperties;
use Illuminate\Console\Command;
use Illuminate\Database\Eloquent\Model;

/** Writes the `@property` lines of every model, for after a migration. */
final class DescribeModels extends Command
{
    protected $signature = 'cartella:describe-models';

    protected $description = 'Write what the tables hold into the models';

    public function handle(): int
    {
        foreach (self::models() as $model) {
            file_put_contents((string) (new \ReflectionClass($model))->getFileName(), ModelProperties::written($model));
        }

        return self::SUCCESS;
    }

    /** @return list<class-string<Model>> */
    public static function models(): array
    {
        $models = [];
        foreach (glob(app_path('Models') . '/*.php') ?: [] as $file) {
            $class = 'App\\Models\\' . basename($file, '.php');
            if (is_subclass_of($class, Model::class)) {
                $models[] = $class;
            }
        }

        return $models;
    }
}
