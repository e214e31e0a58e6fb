<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Points\OpenPoint;
use App\Domain\Points\OpenPoints;
use App\Models\User;
use App\Support\Problem;
use Illuminate\Support\Collection;

/**
 * What stands open about that which is to go: each point is set right, or goes along with a reason that the package carries.
 */
final class Gate
{
    public function __construct(private readonly OpenPoints $points) {}

    /** @return list<array{day: string, number: int, point: OpenPoint}> those of the days that go, as far as they touch what goes */
    public function of(PackingPlan $plan): array
    {
        $clips = $plan->clips->pluck('ulid')->flip();
        $takes = $plan->clips
            ->flatMap(static fn($clip): Collection => $clip->parts->map(static fn($part): string => $part->take->ulid))
            ->flip();
        $cards = $plan->clips->map(static fn($clip): ?string => $clip->card?->ulid)->filter()->flip();
        $whole = array_flip($plan->choice->days);
        $open = [];
        foreach ($plan->days as $day) {
            foreach ($this->points->of($day) as $point) {
                $place = $point->place;
                $isTouched = match (true) {
                    isset($whole[$day->ulid]) => true,
                    isset($place['clip']) => $clips->has($place['clip']),
                    isset($place['take']) => $takes->has($place['take']),
                    isset($place['card']) => $cards->has($place['card']),
                    default => false,
                };
                if ($isTouched) {
                    $open[] = ['day' => $day->ulid, 'number' => $day->number, 'point' => $point];
                }
            }
        }

        return $open;
    }

    /**
     * The reasons for which points go along, with who gave them.
     *
     * @param  list<array{day: string, point: string, reason: string}>  $reasons
     * @return list<array{day: string, point: string, title: string, reason: string, by: string, at: string}>
     *
     * @throws Problem if a point stands open without a reason
     */
    public function passed(PackingPlan $plan, User $user, array $reasons): array
    {
        $given = [];
        foreach ($reasons as $one) {
            $given["$one[day] $one[point]"] = trim($one['reason']);
        }
        $waived = $left = [];
        foreach ($this->of($plan) as ['day' => $day, 'number' => $number, 'point' => $point]) {
            $reason = $given["$day $point->key"] ?? '';
            if ($reason === '') {
                $left[] = $point->title;

                continue;
            }
            $waived[] = [
                'day' => $day,
                'point' => $point->key,
                'title' => "Day $number: $point->title",
                'reason' => $reason,
                'by' => $user->name,
                'at' => now()->toIso8601String(),
            ];
        }
        if ($left !== []) {
            throw Problem::refused(
                'handoff.gate',
                sprintf(
                    '%s open: %s.',
                    count($left) === 1 ? 'One point is' : count($left) . ' points are',
                    implode('; ', array_slice($left, 0, 3)),
                ),
                'Set each right, or say why it goes along as it is.',
                ['points' => array_slice($left, 0, 50)],
            );
        }

        return $waived;
    }
}
