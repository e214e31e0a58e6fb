<?php

declare(strict_types=1);

namespace App\Domain\Points;

use App\Domain\Undo\ChangeLog;
use App\Models\SettledPoint;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;

/** Takes the one step that an open point offers; all of them can be taken back. */
final class FixPoint
{
    public function __construct(private readonly OpenPoints $points) {}

    /** @throws Problem if the point is gone, or does not offer that step */
    public function __invoke(ShootDay $day, User $user, string $key, string $fix): void
    {
        [$point, $source] =
            $this->points->find($day, $key) ??
            throw Problem::missing('That open point', 'It is settled already; the list is up to date now.');
        if (!in_array($fix, array_column($point->fixes, 'name'), true)) {
            throw Problem::refused('point.fix', 'That is not a step this point offers.', 'Load the page again.');
        }
        if ($fix === 'settle') {
            $this->asItIs($day, $user, $key);

            return;
        }
        [$step, $value] = [...explode(':', $fix, 2), ''];
        $source->fix($day, $user, $point, $step, $value);
    }

    private function asItIs(ShootDay $day, User $user, string $key): void
    {
        $log = new ChangeLog();
        $log->save(new SettledPoint(['shoot_day_id' => $day->id, 'point' => $key, 'user_id' => $user->id]));
        $log->finish($day->production, $user, 'Leave a point aside');
        Live::tell($day->production_id, Topic::Takes);
    }
}
