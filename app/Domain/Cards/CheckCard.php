<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\StartTask;
use App\Models\Card;
use App\Models\Task;
use App\Models\User;
use App\Support\Problem;

/** Begins to compare every copy of a card with its manifest, as often as somebody wants to know. */
final class CheckCard
{
    public function __construct(private readonly StartTask $start) {}

    /** @throws Problem if the card has no copy yet, or is being copied or checked already */
    public function __invoke(Card $card, User $user): Task
    {
        if ($card->copies()->doesntExist()) {
            throw Problem::refused('card.no_copy', "$card->roll has no copy yet.", 'Offload it first.');
        }
        if (
            Task::query()
                ->where('alone', "copies.$card->id")
                ->exists()
        ) {
            throw Problem::refused('card.busy', "$card->roll is being copied or checked already.", 'Wait until it is done.');
        }

        return ($this->start)($card->production, $user, 'verify', 'Verify ' . $card->roll, ['card' => $card->id], "copies.$card->id");
    }
}
