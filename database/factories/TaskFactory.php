<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\Task;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Task> */
final class TaskFactory extends Factory
{
    protected $model = Task::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'production_id' => ProductionFactory::new(),
            'kind' => 'lineup',
            'title' => 'Line up day 1',
            'state' => 'waiting',
            'subject' => [],
        ];
    }
}
