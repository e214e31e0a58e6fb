<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;

/** Stamps a card RELEASED by a person, only when every file has two verified copies on different volumes. */
final class ReleaseCard
{
    /** @throws Problem if the card is not safe */
    public function __invoke(Card $card, User $user): Card
    {
        if (! $card->isSafe()) {
            throw Problem::refused('card.unsafe', sprintf('%s is not safe to wipe: %d of %d files are verified twice.', $card->roll, $card->verified_files, $card->files), 'Offload it again until every file is verified on two volumes.');
        }
        $card->update(['released_at' => $card->released_at ?? now(), 'released_by' => $card->released_by ?? $user->id]);
        Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);

        return $card;
    }
}
