<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Models\Clip;
use App\Models\Production;
use App\Models\Scene;
use Cartella\Core\Log\Script;
use Cartella\Core\Words\ScriptLine;
use Cartella\Core\Words\ScriptModel;

/** What the production's script says may be heard in a clip. */
final class ScriptOf
{
    /** @return list<ScriptLine> of all scenes, in the script's order */
    public static function lines(Production $production, ?string $scene = null): array
    {
        $lines = [];
        $scenes = Scene::query()
            ->where('production_id', $production->id)
            ->whereNotNull('script_order')
            ->when($scene !== null, static fn($query) => $query->where('name', $scene))
            ->orderBy('script_order')
            ->get(['name', 'text']);
        foreach ($scenes as $one) {
            foreach (Script::speeches((string) $one->text) as $number => $speech) {
                $lines[] = new ScriptLine($one->name, $number, $speech['character'], $speech['text']);
            }
        }

        return $lines;
    }

    /** The lines of the clip's scenes first; all alike where nobody knows of which scene it is. */
    public static function model(Clip $clip): ScriptModel
    {
        $lines = self::lines($clip->production);
        $scenes = $clip->parts->map(static fn($part): string => (string) $part->take->scene)->unique()->values()->all();
        $style = $clip->production->slate_style;
        if (count($scenes) < 2) {
            return ScriptModel::ofScript($lines, $scenes[0] ?? null, $style);
        }
        $of = static fn(bool $isOwn): array => array_values(
            array_filter($lines, static fn(ScriptLine $line): bool => in_array($line->scene, $scenes, true) === $isOwn),
        );

        return new ScriptModel($of(true), [], $of(false), array_values(array_unique(array_column($lines, 'character'))), $style);
    }
}
