<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\Production;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Production> */
final class ProductionFactory extends Factory
{
    protected $model = Production::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'name' => 'Test ' . uniqid(),
            'rate_num' => 25,
            'rate_den' => 1,
        ];
    }
}
