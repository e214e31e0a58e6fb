<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\Card;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Card> */
final class CardFactory extends Factory
{
    protected $model = Card::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'production_id' => ProductionFactory::new(),
            'shoot_day_id' => ShootDayFactory::new(),
            'state' => 'verified',
        ];
    }

    /** Its volume is called as its roll is. */
    public function roll(string $roll): self
    {
        return $this->state(['roll' => $roll, 'volume' => $roll]);
    }
}
