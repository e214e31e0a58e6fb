<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Handoff;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Custody\Verify;

/** The editor's answer to a hand-off: accepted, once the package is found whole, or queried with a sentence. */
final class AnswerHandoff
{
    /** @throws Problem if the package is not delivered, was answered already, or is not whole */
    public function __invoke(Handoff $handoff, User $user, ?string $query): Handoff
    {
        if ($handoff->delivered_at === null) {
            throw Problem::refused('handoff.packing', 'The package is not delivered yet.', 'Wait until it is.');
        }
        if ($handoff->state === 'accepted') {
            throw Problem::refused('handoff.answered', 'This hand-off is accepted already.', 'Nothing to do.');
        }
        if ($query === null) {
            $found = Verify::folder(config('cartella.inbox').'/'.$handoff->folder);
            if (! $found['ok']) {
                $wrong = [...$found['missing'], ...$found['altered'], ...array_column($found['renamed'], 'from'), ...$found['new'], ...$found['problems']];
                throw Problem::refused('handoff.altered', sprintf('The package is not as it was delivered: %s.', implode(', ', array_slice($wrong, 0, 3))), 'Query it, so that it is handed off again.', $found);
            }
        }
        $handoff->update(['state' => $query === null ? 'accepted' : 'queried', 'answered_at' => now(), 'answered_by' => $user->id, 'query' => $query]);
        Live::tell($handoff->production_id, 'handoffs', ['handoff' => $handoff->ulid]);

        return $handoff;
    }
}
