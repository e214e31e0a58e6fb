<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\Clip;
use App\Support\Live;
use Cartella\Core\CartellaException;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\Log;

/** Makes a clip of every recording on a verified card, and its pictures, proxy, peaks and guide sound. */
final class CatalogueCardJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId)
    {
    }

    public function handle(CatalogueFile $catalogue, ClipMedia $media, Stores $stores): void
    {
        TaskRun::of($this->taskId, static function (TaskRun $run) use ($catalogue, $media, $stores): array {
            $card = Card::query()->with('copies')->findOrFail($run->task->subject['card']);
            $folder = $stores->folderOf($card);
            if ($folder === null) {
                return ['message' => 'No copy of the card can be reached.', 'fix' => 'Connect one of its volumes and catalogue it again.'];
            }
            $files = $card->cardFiles()->where('copies', '>', 0)->orderBy('path')->pluck('path')->filter(static fn (string $path): bool => ! MediaNames::isJunk($path) && MediaNames::kindOf($path) !== null);
            $run->expect($files->count());
            $problems = [];
            $done = 0;
            foreach ($files as $path) {
                $run->at($done, now: basename($path));
                $clip = $catalogue($card, $folder, $path);
                try {
                    if ($clip->proxied_at === null) {
                        $media->make($clip, $folder.'/'.$path);
                    }
                } catch (CartellaException $trouble) {
                    // One bad file must not hide the others of the card.
                    Log::warning($trouble->getMessage(), ['clip' => $clip->ulid] + $trouble->context());
                    $problems[] = $trouble->getMessage();
                    $clip->update(['problems' => [...($clip->problems ?? []), $trouble->getMessage()]]);
                }
                $run->at(++$done, now: basename($path));
                Live::tell($card->production_id, 'clips', ['clip' => $clip->ulid]);
            }

            return ['clips' => Clip::query()->where('card_id', $card->id)->count(), 'problems' => $problems, 'message' => sprintf('%d clips catalogued.', $done)];
        });
    }
}
