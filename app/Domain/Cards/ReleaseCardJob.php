<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\CardRelease;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Custody\CopyLook;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\DB;

/** Looks at every copy of a card as it lies on its medium now, and only then stamps the card RELEASED, with what it saw. */
final class ReleaseCardJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(Stores $stores, ReleaseCard $release): void
    {
        TaskRun::of($this->taskId, function (TaskRun $run) use ($stores, $release): array {
            $card = Card::query()
                ->with(['copies', 'production'])
                ->findOrFail($run->task->subject['card']);
            if ($card->released_at === null) {
                $evidence = $this->look($card, $run, $stores, $release);
                $this->stamp($card, $run, $evidence);
            }
            Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);

            return ['message' => sprintf('%s is released. It may be wiped.', $card->roll)];
        });
    }

    /**
     * @return array<string, mixed> what was looked at, as it was at that moment
     *
     * @throws Problem if a copy is not what it should be
     */
    private function look(Card $card, TaskRun $run, Stores $stores, ReleaseCard $release): array
    {
        $devices = $release->copiesThere($card);
        $expected = $card->cardFiles()->pluck('size_bytes', 'path')->map(static fn(mixed $bytes): int => (int) $bytes)->all();
        $run->expect(count($devices));
        $copies = [];
        foreach ($card->copies->whereIn('store', array_keys($devices)) as $copy) {
            $store = $stores->known($card->production)->get($copy->store);
            $run->at(count($copies), now: 'looking at ' . $store->name);
            $look = CopyLook::at(
                $store->path . '/' . $copy->path,
                $expected,
                static fn(string $path) => $run->at(count($copies), now: 'reading ' . basename($path) . ' from ' . $store->name),
            );
            if ($look->wrong !== []) {
                $copy->update([
                    'checked_at' => now(),
                    'differences' => [
                        'missing' => [],
                        'altered' => array_column($look->wrong, 'path'),
                        'new' => [],
                        'renamed' => [],
                        'problems' => [],
                    ],
                ]);
                Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);
                throw Problem::refused(
                    'card.unsafe',
                    sprintf(
                        '%s on %s is not as it was copied: %s. %s',
                        $card->roll,
                        $store->name,
                        basename($look->wrong[0]['path']),
                        $look->wrong[0]['reason'],
                    ),
                    'Offload the card again; it must not be wiped.',
                );
            }
            $copies[] = [
                'store' => $store->name,
                'path' => $copy->path,
                'device' => $devices[$copy->store],
                'manifest' => $look->newest,
                'c4' => $look->c4,
                'manifests' => $look->manifests,
                'files' => $look->files,
                'size_bytes' => $look->bytes,
                'sample' => $look->sample,
                'read_from' => $copy->read_from,
                'checked_at' => $copy->checked_at?->toIso8601String(),
            ];
        }
        if (count($copies) < 2) {
            throw Problem::refused(
                'card.copy_away',
                sprintf('Only %d of the copies of %s can be looked at now.', count($copies), $card->roll),
                'Connect the volumes, and release it again.',
            );
        }

        return [
            'files' => $card->files,
            'size_bytes' => $card->size_bytes,
            'fingerprint' => $card->fingerprint,
            'algorithm' => $card->cardFiles()->value('algorithm'),
            'verified_at' => $card->verified_at?->toIso8601String(),
            'looked_at' => now()->toIso8601String(),
            'one_disk' => count(array_unique($devices)) < 2,
            'words' => $run->task->subject['words'] ?? null,
            'copies' => $copies,
        ];
    }

    /** @param  array<string, mixed>  $evidence */
    private function stamp(Card $card, TaskRun $run, array $evidence): void
    {
        DB::transaction(static function () use ($card, $run, $evidence): void {
            $locked = Card::query()->with('copies')->lockForUpdate()->findOrFail($card->id);
            if ($locked->released_at !== null || !$locked->isSafe() || $locked->fingerprint !== $evidence['fingerprint']) {
                throw Problem::refused('card.unsafe', "$locked->roll changed while it was looked at.", 'Look at it again.');
            }
            if ($evidence['one_disk'] && mb_strtolower((string) $evidence['words']) !== ReleaseCard::ONE_DISK) {
                throw Problem::refused(
                    'card.one_disk',
                    "Both copies of $locked->roll lie on one disk now.",
                    'Release it again, and say so.',
                );
            }
            CardRelease::query()->create([
                'card_id' => $locked->id,
                'user_id' => $run->task->user_id,
                'evidence' => $evidence,
                'created_at' => now(),
            ]);
            $locked->update(['released_at' => now(), 'released_by' => $run->task->user_id]);
            Audit::write('card.released', $run->task->user_id, $locked->production_id, [
                'card' => $locked->ulid,
                'roll' => $locked->roll,
                'one_disk' => $evidence['one_disk'],
                'words' => $evidence['words'],
            ]);
        });
    }
}
