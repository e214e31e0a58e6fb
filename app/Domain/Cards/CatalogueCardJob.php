<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaMade;
use App\Domain\Footage\MediaRecipe;
use App\Domain\Footage\Stores;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\Clip;
use App\Models\Task;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\CartellaException;
use Cartella\Core\Media\MediaInfo;
use Cartella\Core\Media\MediaNames;
use Cartella\Core\Media\Probe;
use Cartella\Core\Media\Recordings;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\Log;

/** Makes a clip of every recording on a verified card, and its pictures, proxy, peaks and guide sound. */
final class CatalogueCardJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const LEAST_BYTES = 32 << 20;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(CatalogueFile $catalogue, ClipMedia $media, Stores $stores, Returned $returned): void
    {
        TaskRun::of(
            $this->taskId,
            static function (TaskRun $run) use ($catalogue, $media, $stores, $returned): array {
                $card = Card::query()->with('copies')->findOrFail($run->task->subject['card']);
                $folder = $stores->folderOf($card);
                if ($folder === null) {
                    throw Problem::missing('A copy of ' . $card->roll, 'Connect one of its volumes and catalogue it again.');
                }
                $day = (int) ($run->task->subject['day'] ?? $card->shoot_day_id);
                $recordings = self::recordings($run, $card, $folder);
                $run->expect(count($recordings));
                $bytes = 0;
                foreach ($recordings as $recording) {
                    foreach ($recording['infos'] as $info) {
                        $bytes += MediaRecipe::bytes((int) $info->durationTicks, $info->frames !== null, array_sum($info->audioStreams));
                    }
                }
                // A broken head may claim any length: what is made is a few times the media at most.
                app(Room::class)->need([Folders::media() => max(self::LEAST_BYTES, min($bytes, 8 * $card->size_bytes))]);
                $problems = $ways = [];
                $done = 0;
                $found = $returned->of($card, $recordings);
                foreach ($recordings as $number => $recording) {
                    $name = basename($recording['parts'][0]);
                    $run->at($done, now: $name);
                    $again = $found[$number] ?? null;
                    $clip = $catalogue($card, $day, $recording, $again);
                    if ($again !== null) {
                        $ways[] = $again['by']->words();
                    }
                    try {
                        if ($clip->proxied_at === null) {
                            $media->make($clip, array_map(static fn(string $path): string => $folder . '/' . $path, $recording['parts']));
                        }
                    } catch (CartellaException $trouble) {
                        // One bad file must not hide the others of the card.
                        Log::warning($trouble->getMessage(), ['clip' => $clip->ulid] + $trouble->context());
                        $problems[] = $trouble->getMessage();
                        $clip->update(['problems' => [...$clip->problems ?? [], $trouble->getMessage()]]);
                    }
                    MediaMade::dispatch($clip);
                    $run->at(++$done, now: $name);
                    Live::tell($card->production_id, Topic::Clips, ['clip' => $clip->ulid]);
                }
                if ($card->refresh()->state === 'verified') {
                    Imports::forget($card);
                }
                Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);

                return [
                    'clips' => Clip::query()->where('card_id', $card->id)->count(),
                    'problems' => $problems,
                    'message' => sprintf('%d clips catalogued.', $done) . self::ways($ways),
                ];
            },
            'catalogue.' . (Task::query()->find($this->taskId)->subject['card'] ?? 0),
        );
    }

    /** @param  list<string>  $ways  by which clips were found again */
    private static function ways(array $ways): string
    {
        $said = '';
        foreach (array_count_values($ways) as $way => $count) {
            $said .= sprintf(' %d found again by %s.', $count, $way);
        }

        return $said;
    }

    /**
     * @return list<array{layout: string, parts: non-empty-list<string>, sidecars: list<string>, infos: non-empty-list<MediaInfo>}>
     */
    private static function recordings(TaskRun $run, Card $card, string $folder): array
    {
        $infos = $stills = $others = [];
        $paths = $card->cardFiles()->where('copies', '>', 0)->orderBy('path')->pluck('path')->reject(MediaNames::isJunk(...))->values();
        $run->expect($paths->count());
        foreach ($paths as $number => $path) {
            $kind = MediaNames::kindOf($path);
            if ($kind === 'picture' || $kind === 'sound') {
                $run->at($number, now: 'looking at ' . basename($path));
                $infos[$path] = Probe::file($folder . '/' . $path);
            } else {
                $others[] = $path;
                $stills += $kind === 'still' ? [$path => true] : [];
            }
        }
        $recordings = Recordings::of($infos, $others);
        // A still beside a clip of its name is the clip's; any other is one of its own.
        $stills = array_diff_key($stills, array_flip(array_merge(...array_column($recordings, 'sidecars'), ...[[]])));
        foreach (array_keys($stills) as $path) {
            $infos[$path] = Probe::file($folder . '/' . $path);
            $recordings[] = ['layout' => 'single', 'parts' => [(string) $path], 'sidecars' => []];
        }

        return array_map(
            static fn(array $recording): array => $recording + [
                'infos' => array_map(static fn(string $part): MediaInfo => $infos[$part], $recording['parts']),
            ],
            $recordings,
        );
    }
}
