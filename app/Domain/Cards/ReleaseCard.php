<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\CardCopy;
use App\Models\CardRelease;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Custody\C4;
use Cartella\Core\Custody\FolderWalk;
use Illuminate\Support\Facades\DB;

/** Stamps a card RELEASED by a person, only when every file has two verified copies on different volumes. */
final class ReleaseCard
{
    public function __construct(private readonly Stores $stores)
    {
    }

    /** @throws Problem if the card is not safe */
    public function __invoke(Card $card, User $user): Card
    {
        DB::transaction(function () use ($card, $user): void {
            $card = Card::query()->with('copies')->lockForUpdate()->findOrFail($card->id);
            if (! $card->isSafe()) {
                throw Problem::refused('card.unsafe', sprintf('%s is not safe to wipe: %d of %d files are verified twice.', $card->roll, $card->verified_files, $card->files), 'Offload it again until every file is verified on two volumes.');
            }
            if ($card->released_at !== null) {
                return;
            }
            CardRelease::query()->create(['card_id' => $card->id, 'user_id' => $user->id, 'evidence' => $this->evidence($card), 'created_at' => now()]);
            $card->update(['released_at' => now(), 'released_by' => $user->id]);
        });
        Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);

        return $card->refresh();
    }

    /** @return array<string, mixed> what the release is based on, as it was at that moment */
    private function evidence(Card $card): array
    {
        return [
            'files' => $card->files, 'size_bytes' => $card->size_bytes, 'fingerprint' => $card->fingerprint,
            'algorithm' => $card->cardFiles()->value('algorithm'), 'verified_at' => $card->verified_at?->toIso8601String(),
            'copies' => $card->copies->sortBy(fn (CardCopy $copy): int => (int) array_search($copy->store, array_keys($this->stores->all()), true))->values()->map(function (CardCopy $copy): array {
                $store = $this->stores->all()[$copy->store] ?? null;
                $manifest = ($store['path'] ?? '').'/'.$copy->path.'/'.FolderWalk::HISTORY.'/'.$copy->manifest;

                return [
                    'store' => $store['name'] ?? $copy->store, 'path' => $copy->path, 'manifest' => $copy->manifest,
                    'c4' => $copy->manifest !== null && is_file($manifest) ? C4::ofFile($manifest) : null, 'checked_at' => $copy->checked_at?->toIso8601String(),
                ];
            })->all(),
        ];
    }
}
