<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Undo\ChangeLog;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Log\Script;
use Illuminate\Support\Facades\DB;

/** Takes the scenes of a script in: headings, who speaks and eighths beside what is shot. One undoable step. */
final class BringScript
{
    /**
     * @return array{scenes: int, new: list<string>, gone: list<string>, changed: list<string>, pages: string} scenes by name
     *
     * @throws Problem if the text has no scene heading
     */
    public function preview(Production $production, string $text): array
    {
        return $this->compare($this->existing($production), $this->scenes($text));
    }

    /**
     * @return array{scenes: int, new: list<string>, gone: list<string>, changed: list<string>, pages: string}
     *
     * @throws Problem
     */
    public function __invoke(Production $production, User $user, string $text, string $name): array
    {
        $scenes = $this->scenes($text);
        $report = DB::transaction(function () use ($production, $user, $scenes, $name): array {
            $existing = $this->existing($production);
            $report = $this->compare($existing, $scenes);
            $log = new ChangeLog();
            foreach (array_values($scenes) as $order => $scene) {
                $row = $existing[$scene['scene']] ?? new Scene(['production_id' => $production->id, 'name' => $scene['scene']]);
                $row->fill([
                    'heading' => $scene['heading'],
                    'characters' => $scene['characters'],
                    'eighths' => $scene['eighths'],
                    'script_order' => $order,
                    'text' => $scene['text'],
                ]);
                $log->save($row);
            }
            foreach ($report['gone'] as $gone) {
                $existing[$gone]->fill(['script_order' => null, 'eighths' => null, 'characters' => null, 'text' => null]);
                $log->save($existing[$gone]);
            }
            $production->script = mb_substr(mb_scrub($name), 0, 190);
            $log->save($production);
            $log->finish($production, $user, 'Bring in the script');

            return $report;
        });
        Live::tell($production->id, Topic::Takes);

        return $report;
    }

    /**
     * @return array<string, array{scene: string, heading: string, characters: list<string>, eighths: int,
     *     line: int, text: string}> by scene; the first of a number counts
     */
    private function scenes(string $text): array
    {
        $scenes = [];
        foreach (Script::scenes($text) as $scene) {
            $scenes[$scene['scene']] ??= $scene;
        }

        return $scenes === []
            ? throw Problem::refused(
                'script.empty',
                'No scene heading stands in that text.',
                'Bring a script in Fountain or plain text, with headings such as INT. ATTIC - NIGHT.',
            )
            : $scenes;
    }

    /** @return array<string, Scene> by name */
    private function existing(Production $production): array
    {
        return Scene::query()->where('production_id', $production->id)->get()->keyBy('name')->all();
    }

    /**
     * @param  array<string, Scene>  $existing
     * @param  array<string, array{scene: string, heading: string, characters: list<string>, eighths: int, line: int,
     *     text: string}>  $scenes
     * @return array{scenes: int, new: list<string>, gone: list<string>, changed: list<string>, pages: string}
     */
    private function compare(array $existing, array $scenes): array
    {
        $new = $changed = $gone = [];
        foreach ($scenes as $name => $scene) {
            if (!isset($existing[$name])) {
                $new[] = (string) $name;
            } elseif (
                $existing[$name]->script_order !== null &&
                ($existing[$name]->heading !== $scene['heading'] ||
                    $existing[$name]->eighths !== $scene['eighths'] ||
                    ($existing[$name]->text ?? $scene['text']) !== $scene['text'])
            ) {
                $changed[] = (string) $name;
            }
        }
        foreach ($existing as $name => $scene) {
            if ($scene->script_order !== null && !isset($scenes[$name])) {
                $gone[] = (string) $name;
            }
        }

        return [
            'scenes' => count($scenes),
            'new' => $new,
            'gone' => $gone,
            'changed' => $changed,
            'pages' => Script::pages((int) array_sum(array_column($scenes, 'eighths'))),
        ];
    }
}
