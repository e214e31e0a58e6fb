<?php

declare(strict_types=1);

namespace Tests\App;

use App\Console\DescribeModels;
use App\Support\ModelProperties;

final class ModelsTest extends TestCase
{
    /** The analyser believes these lines; one that is old would let a column's new type pass unseen. */
    public function test_every_model_says_what_its_table_holds(): void
    {
        $old = array_values(
            array_filter(
                DescribeModels::models(),
                static fn(string $model): bool => ModelProperties::written($model) !==
                    file_get_contents((string) (new \ReflectionClass($model))->getFileName()),
            ),
        );
        self::assertSame([], $old, "'./cartella models' writes them");
    }
}
