<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\StartTask;
use App\Models\Card;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Illuminate\Support\Facades\DB;

/** Begins to copy a volume to every store, or goes on with one that was stopped or had faults. */
final class OffloadCard
{
    public function __construct(private readonly Bench $bench, private readonly StartTask $start)
    {
    }

    /** @throws Problem if the volume is gone, or already being copied */
    public function __invoke(Production $production, User $user, ShootDay $day, string $volume, string $roll, ?Device $device): Task
    {
        $seen = $this->bench->look($production, $volume);
        $card = DB::transaction(function () use ($production, $day, $volume, $roll, $device, $seen): Card {
            $card = Card::query()->where('production_id', $production->id)->where('roll', $roll)->lockForUpdate()->first();
            if ($card !== null && $card->state === 'copying') {
                throw Problem::refused('card.busy', "$roll is being copied already.", 'Wait until it is done, or stop it first.');
            }
            if ($card !== null && $card->shoot_day_id !== $day->id) {
                throw Problem::refused('card.other_day', sprintf('%s was offloaded on day %d.', $roll, $card->day->number), 'Go to that day, or give this card another roll name.');
            }
            if ($card !== null && $card->state === 'verified' && $card->files === $seen['files'] && $card->size_bytes === $seen['size_bytes']) {
                throw Problem::refused('card.seen', "$roll is the same card as before: every file is verified already.", 'Nothing to do. It may be taken out.');
            }
            $card ??= new Card(['production_id' => $production->id, 'shoot_day_id' => $day->id, 'roll' => $roll]);
            $card->fill(['device_id' => $device?->id, 'volume' => $volume, 'state' => 'copying', 'files' => $seen['files'], 'size_bytes' => $seen['size_bytes'], 'faults' => null])->save();

            return $card;
        });
        Live::tell($production->id, 'cards', ['card' => $card->ulid]);

        return ($this->start)($production, $user, 'offload', 'Offload '.$roll, ['card' => $card->id]);
    }
}
