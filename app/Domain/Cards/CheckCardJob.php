<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Support\Live;
use App\Support\Topic;
use Cartella\Core\CartellaException;
use Cartella\Core\Custody\Verify;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Reads every copy of a card again, adds a generation to its manifest, and keeps what differs. */
final class CheckCardJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(Stores $stores): void
    {
        TaskRun::of($this->taskId, function (TaskRun $run) use ($stores): array {
            $card = Card::query()->with('copies')->findOrFail($run->task->subject['card']);
            $run->expect($card->files * $card->copies->count(), $card->size_bytes * $card->copies->count());
            $files = $bytes = 0;
            $wrong = [];
            foreach ($card->copies as $copy) {
                $store = $stores->known($card->production)->get($copy->store);
                $differences = $this->check($card, ($store->path ?? '') . '/' . $copy->path, static function (
                    string $path,
                    int $readBytes,
                    int $readFiles,
                ) use ($run, $files, $bytes): void {
                    $run->at(min($files + $readFiles, $run->task->total), $bytes + $readBytes, basename($path));
                });
                $files += $card->files;
                $bytes += $card->size_bytes;
                $copy->update(['checked_at' => now(), 'differences' => $differences]);
                if ($differences !== null) {
                    $wrong[] = $store->name ?? $copy->store;
                }
            }
            Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);

            return ['message' => $wrong === [] ? 'Every copy is as it was.' : 'Not as it was copied: ' . implode(', ', $wrong) . '.'];
        });
    }

    /**
     * What came into the folder later, and went again, is no loss of the card.
     *
     * @param  callable(string, int, int): void  $progress
     * @return array<string, mixed>|null null when nothing differs
     */
    private function check(Card $card, string $folder, callable $progress): ?array
    {
        try {
            $answer = Verify::folder($folder, record: true, progress: $progress);
        } catch (CartellaException $trouble) {
            return ['missing' => [], 'altered' => [], 'new' => [], 'renamed' => [], 'problems' => [$trouble->getMessage()]];
        }
        unset($answer['ok']);
        $own = $card->cardFiles()->where('copies', '>', 0)->pluck('path')->flip();
        $isOwn = static fn(string $path): bool => $own->has(mb_scrub($path));
        $answer['missing'] = array_values(array_filter($answer['missing'], $isOwn));
        $answer['altered'] = array_values(array_filter($answer['altered'], $isOwn));
        $answer['renamed'] = array_values(array_filter($answer['renamed'], static fn(array $one): bool => $isOwn($one['from'])));
        // A folder of thousands of differences is told by its first ones and a count.
        $answer = array_map(static fn(array $list): array => array_slice($list, 0, 200), $answer);

        return array_filter($answer) === [] ? null : $answer;
    }
}
