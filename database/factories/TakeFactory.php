<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\Take;
use Cartella\Core\Slate\SetupName;
use Cartella\Core\Slate\SlateOrder;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Take> */
final class TakeFactory extends Factory
{
    protected $model = Take::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'production_id' => ProductionFactory::new(),
            'shoot_day_id' => ShootDayFactory::new(),
        ];
    }

    /** With the scene that the setup says, in its place in slate order. */
    public function slate(string $setup, int $take): self
    {
        return $this->state([
            'scene' => SetupName::parse($setup)?->scene() ?? $setup,
            'setup' => $setup,
            'take' => $take,
            'sort_key' => SlateOrder::key($setup, $take),
        ]);
    }
}
