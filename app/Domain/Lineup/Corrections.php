<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Models\Card;
use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Device;
use App\Models\ShootDay;

/**
 * What to add to the times that clips carry, in ticks: what a person stated for a card, else for the day, else for the
 * device. Kept beside what was recorded, which never changes.
 */
final class Corrections
{
    /** @var array<int, int> by card */
    private array $cards;

    /** @var array<int, int> by device */
    private array $devices;

    public function __construct(ShootDay $day)
    {
        $this->cards = Card::query()
            ->where('production_id', $day->production_id)
            ->whereNotNull('clock_ticks')
            ->pluck('clock_ticks', 'id')
            ->map(static fn($ticks): int => (int) $ticks)
            ->all();
        $this->devices =
            ClockOffset::query()
                ->where('shoot_day_id', $day->id)
                ->whereNotNull('applied_ticks')
                ->pluck('applied_ticks', 'device_id')
                ->map(static fn($ticks): int => (int) $ticks)
                ->all() +
            Device::query()
                ->where('production_id', $day->production_id)
                ->whereNotNull('clock_ticks')
                ->pluck('clock_ticks', 'id')
                ->map(static fn($ticks): int => (int) $ticks)
                ->all();
    }

    public function of(Clip $clip): int
    {
        return $this->cards[$clip->card_id] ?? $this->ofDevice((int) $clip->device_id);
    }

    public function ofDevice(int $device): int
    {
        return $this->devices[$device] ?? 0;
    }
}
