<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\ShootDay;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<ShootDay> */
final class ShootDayFactory extends Factory
{
    protected $model = ShootDay::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'production_id' => ProductionFactory::new(),
            'number' => 1,
            'date' => '2026-10-05',
        ];
    }
}
