<?php

declare(strict_types=1);

namespace App\Domain\Points;

use App\Models\ShootDay;
use App\Models\User;
use App\Support\Problem;

/** A domain that finds open points of a day, and knows the steps that end them. */
interface PointSource
{
    /** @return list<OpenPoint> */
    public function of(ShootDay $day): array;

    /**
     * @param  string  $step  one of those the point offers, without what stands behind a colon
     * @param  string  $value  what stands behind it; empty where nothing does
     *
     * @throws Problem if it cannot be taken any more
     */
    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void;
}
