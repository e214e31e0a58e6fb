<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use App\Models\ShootDay;

/** A shoot day. */
final readonly class DayAnswer
{
    public function __construct(public string $ulid, public int $number, public string $date, public string $unit) {}

    public static function of(ShootDay $day): self
    {
        return new self($day->ulid, $day->number, $day->date->format('Y-m-d'), $day->unit);
    }
}
