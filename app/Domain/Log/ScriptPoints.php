<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Points\OpenPoint;
use App\Domain\Points\PointSource;
use App\Models\Scene;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;

/** What the script and the day say of each other's scenes. */
final class ScriptPoints implements PointSource
{
    /** Scenes shot that the script does not have, and, once its last day is there, those of the script that nobody shot. */
    public function of(ShootDay $day): array
    {
        $script = Scene::query()
            ->where('production_id', $day->production_id)
            ->whereNotNull('script_order')
            ->orderBy('script_order')
            ->pluck('name')
            ->all();
        if ($script === []) {
            return [];
        }
        $points = [];
        $shot = Take::query()
            ->where('shoot_day_id', $day->id)
            ->orderBy('sort_key')
            ->orderBy('id')
            ->get(['ulid', 'scene'])
            ->unique('scene');
        foreach ($shot->whereNotIn('scene', $script) as $first) {
            $scene = $first->scene;
            $points[] = new OpenPoint(
                "scene.$scene",
                'warning',
                "Scene $scene is not in the script",
                sprintf('%s has no such scene.', $day->production->script),
                ['stage' => 'log', 'take' => $first->ulid],
                [['name' => 'settle', 'label' => 'It is right so']],
            );
        }
        // A day on which nothing was shot yet is not the last.
        $isLast =
            $shot->isNotEmpty() &&
            !ShootDay::query()->where('production_id', $day->production_id)->where('number', '>', $day->number)->exists();
        $left = $isLast
            ? array_values(
                array_diff($script, Take::query()->where('production_id', $day->production_id)->distinct()->pluck('scene')->all()),
            )
            : [];
        if ($left !== []) {
            $points[] = new OpenPoint(
                'script.left',
                'warning',
                sprintf(
                    '%d %s of the script %s not shot',
                    count($left),
                    count($left) === 1 ? 'scene' : 'scenes',
                    count($left) === 1 ? 'is' : 'are',
                ),
                'Scene ' .
                    implode(', ', array_slice($left, 0, 12)) .
                    (count($left) > 12 ? sprintf(' and %d more', count($left) - 12) : '') .
                    '.',
                ['stage' => 'log'],
                [['name' => 'settle', 'label' => 'We know']],
                awaits: ['offload', 'catalogue'],
            );
        }

        return $points;
    }

    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void
    {
        throw new \LogicException("No step $step");
    }
}
