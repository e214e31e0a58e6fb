<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Points\OpenPoint;
use App\Domain\Points\PointSource;
use App\Models\HandoffQuestion;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Problem;

/** Questions of the editing team that nobody has answered. */
final class HandoffPoints implements PointSource
{
    public function of(ShootDay $day): array
    {
        return HandoffQuestion::query()
            ->whereNull('answered_at')
            ->whereHas('handoff', static fn($query) => $query->where('production_id', $day->production_id))
            ->with(['handoff', 'clip', 'take', 'user'])
            ->orderBy('id')
            ->get()
            ->filter(static fn(HandoffQuestion $one): bool => self::isOf($one, $day))
            ->map(static function (HandoffQuestion $one): OpenPoint {
                $about = $one->take?->label() ?? ($one->clip?->title() ?? ($one->path === null ? null : basename($one->path)));

                return new OpenPoint(
                    "question.$one->ulid",
                    'fault',
                    sprintf('%s asks about %s', $one->user->name ?? 'The editing team', $about ?? "hand-off {$one->handoff->number}"),
                    $one->question,
                    [
                        'stage' => 'handoff',
                        ...$one->take === null ? [] : ['take' => $one->take->ulid],
                        ...$one->clip === null ? [] : ['clip' => $one->clip->ulid],
                    ],
                );
            })
            ->values()
            ->all();
    }

    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void
    {
        throw Problem::refused('point.fix', 'A question is answered on the hand-off page.', 'Open it there.');
    }

    /** What is about a take or a clip stands on its day, what is about all of a package on each of its days. */
    private static function isOf(HandoffQuestion $one, ShootDay $day): bool
    {
        $of = $one->take->shoot_day_id ?? ($one->clip->shoot_day_id ?? null);

        $days = [...$one->handoff->chosen['days'] ?? [], ...$one->handoff->summary['days'] ?? []];

        return $of !== null ? $of === $day->id : in_array($day->ulid, $days, true);
    }
}
