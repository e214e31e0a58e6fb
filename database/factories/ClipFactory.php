<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\Clip;
use App\Models\Device;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<Clip> */
final class ClipFactory extends Factory
{
    protected $model = Clip::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'production_id' => ProductionFactory::new(),
            'shoot_day_id' => ShootDayFactory::new(),
            'kind' => 'picture',
            'rate_num' => 25,
            'rate_den' => 1,
            'facts' => [],
            'channels' => [],
        ];
    }

    public function named(string $name): self
    {
        return $this->state(['name' => $name, 'path' => $name, 'path_hash' => md5($name)]);
    }

    public function of(Device $device): self
    {
        return $this->state(['device_id' => $device->id, 'kind' => $device->isRecorder() ? 'sound' : 'picture']);
    }

    /** From so many seconds since midnight on its device's own clock, for so many seconds. */
    public function ran(float $at, float $seconds): self
    {
        return $this->state(
            // Bound to the factory by the framework, so it cannot be static.
            fn(array $clip): array => [
                'start_ticks' => (int) ($at * Ticks::PER_SECOND),
                'duration_ticks' => (int) ($seconds * Ticks::PER_SECOND),
                'frames' => $clip['kind'] === 'sound' ? null : (int) ($seconds * 25),
            ],
        );
    }
}
