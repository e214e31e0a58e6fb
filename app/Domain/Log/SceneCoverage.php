<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\TakeLengths;
use App\Models\Scene;
use App\Models\ShootDay;
use Cartella\Core\Log\Script;
use Illuminate\Support\Facades\DB;

/** What the script says of scenes, and what was shot of them on all days: setups, takes, circled, ticks of picture. */
final class SceneCoverage
{
    /**
     * @return object the day's scenes by name, so that JSON has an object whatever the names are
     */
    public function of(ShootDay $day): object
    {
        $production = $day->production_id;
        $names = DB::table('takes')->where('shoot_day_id', $day->id)->distinct()->pluck('scene')->map(strval(...))->all();
        $script = Scene::query()->where('production_id', $production)->whereIn('name', $names)->get()->keyBy('name');
        $shot = DB::table('takes')
            ->where('takes.production_id', $production)
            ->whereIn('takes.scene', $names)
            ->leftJoinSub(TakeLengths::pictures()->where('clips.production_id', $production), 'ran', 'ran.take_id', '=', 'takes.id')
            ->groupBy('takes.scene')
            ->selectRaw(
                'takes.scene, COUNT(DISTINCT takes.setup) AS setups, COUNT(*) AS takes, SUM(takes.status = ' .
                    "'circled') AS circled, COALESCE(SUM(ran.longest), 0) AS ticks, COUNT(DISTINCT takes.shoot_day_id) AS days",
            )
            ->get()
            ->keyBy('scene');
        $scenes = [];
        foreach ($names as $name) {
            $scene = $script[$name] ?? null;
            $coverage = $shot[$name] ?? null;
            $scenes[$name] = [
                'heading' => $scene->heading ?? '',
                'characters' => $scene->characters ?? [],
                'pages' => $scene?->eighths === null ? null : Script::pages($scene->eighths),
                'in_script' => $scene?->script_order !== null,
                'setups' => (int) ($coverage->setups ?? 0),
                'takes' => (int) ($coverage->takes ?? 0),
                'circled' => (int) ($coverage->circled ?? 0),
                'running_ticks' => (int) ($coverage->ticks ?? 0),
                'days' => (int) ($coverage->days ?? 0),
            ];
        }

        return (object) $scenes;
    }
}
