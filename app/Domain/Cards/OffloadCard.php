<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Tasks\StartTask;
use App\Models\Card;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Begins to copy a volume to every store, or goes on with one that was stopped or had faults. */
final class OffloadCard
{
    public function __construct(private readonly Readers $bench, private readonly StartTask $start, private readonly Stores $stores) {}

    /**
     * @param  list<string>|null  $to  keys of the stores it is copied to; null for all of them, or for those of before
     * @param  bool  $compare  reads a card again that was copied before, and compares it with its copies
     *
     * @throws Problem if the volume is gone, already being copied, the same as before, or the roll is another card's
     */
    public function __invoke(
        Production $production,
        User $user,
        ShootDay $day,
        string $volume,
        string $roll,
        ?Device $device,
        bool $compare = false,
        ?array $to = null,
    ): Task {
        $this->refuseStores($production, $to);
        $seen = $this->bench->fresh($production, $volume);
        [$what] = $this->bench->look(
            $production,
            collect([$seen]),
            Card::query()->where('production_id', $production->id)->orderBy('id')->get(),
        );
        $task = DB::transaction(function () use ($production, $user, $day, $volume, $roll, $device, $seen, $what, $compare, $to): Task {
            // Two people who start the same card at once come one after the other.
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            ClaimVolume::take($seen, $production, 'it was copied for it');
            $card = Card::query()->where('production_id', $production->id)->where('roll', $roll)->lockForUpdate()->first();
            $isSame = $card !== null && $card->ulid === $what['known_card'];
            if ($card !== null && $card->state === 'copying') {
                throw Problem::refused('card.busy', "$roll is being copied already.", 'Wait until it is done, or stop it first.');
            }
            if ($isSame && $what['state'] === 'seen' && $card->state === 'verified' && !$compare) {
                throw Problem::refused(
                    'card.seen',
                    "$roll is the same card as before: every file is verified already.",
                    'Nothing to do. It may be taken out.',
                );
            }
            if ($card !== null && !($isSame && $what['state'] !== 'reused') && $card->verified_files > 0) {
                throw Problem::refused(
                    'card.roll_taken',
                    sprintf('%s is the roll of another card, of day %d.', $roll, $card->day->number),
                    'Give this card another roll name, such as ' . ($what['roll'] === $roll ? "$roll-2" : $what['roll']) . '.',
                );
            }
            $card ??= new Card([
                'production_id' => $production->id,
                'shoot_day_id' => $day->id,
                'roll' => $roll,
                'use_number' => 1 + Card::query()->where('production_id', $production->id)->where('volume', $volume)->count(),
            ]);
            $this->refuseSharedFolder($production, $day, $isSame ? $card->device : $device, $roll, $card->exists ? $card : null);
            // A card that comes with more clips has to be released anew; its earlier release stays on record.
            $card
                ->fill([
                    'device_id' => $isSame ? $card->device_id : $device?->id,
                    'volume' => $volume,
                    'state' => 'copying',
                    'away_at' => null,
                    'files' => $seen->survey['files'],
                    'size_bytes' => $seen->survey['bytes'],
                    'faults' => null,
                    'fingerprint' => $seen->fingerprint,
                    'first_at' => $seen->survey['first']['at'] ?? null,
                    'last_at' => $seen->survey['last']['at'] ?? null,
                    'chosen_stores' => $to ?? $card->chosen_stores,
                    'verified_at' => null,
                    'released_at' => $compare ? $card->released_at : null,
                    'released_by' => $compare ? $card->released_by : null,
                ])
                ->save();
            Live::tell($production->id, Topic::Cards, ['card' => $card->ulid]);

            return ($this->start)(
                $production,
                $user,
                'offload',
                ($compare ? 'Compare ' : 'Offload ') . $roll,
                ['card' => $card->id, 'day' => $day->id],
                "copies.$card->id",
            );
            // The watch of the readers writes volumes meanwhile; of two that wait for each other the database ends one.
        }, attempts: 3);

        return $task;
    }

    /** @param  list<string>|null  $to */
    private function refuseStores(Production $production, ?array $to): void
    {
        $known = $this->stores->inUse($production);
        if ($known->isEmpty()) {
            throw Problem::refused(
                'store.none',
                'This production has no volume that copies go to.',
                'An admin adds one under Production, Volumes.',
            );
        }
        if ($to !== null && ($to === [] || array_diff($to, $known->keys()->all()) !== [])) {
            throw Problem::refused(
                'store.unknown',
                $to === [] ? 'No volume is chosen.' : 'One of those volumes is not this production\'s.',
                'Choose at least one of the list.',
            );
        }
    }

    /** Names of two productions, or two rolls, may become one folder's name. */
    private function refuseSharedFolder(Production $production, ShootDay $day, ?Device $device, string $roll, ?Card $card): void
    {
        $place = Stores::placeOf($production, $day, $device, $roll, $card?->load('copies'));
        $path = ltrim($place['below'] . '/' . $place['name'], '/');
        $other = Stores::otherIn($this->stores->known($production), $path, $card);
        if ($other !== null) {
            throw Problem::refused(
                'card.folder_taken',
                sprintf(
                    'The folder %s holds another card already%s.',
                    $path,
                    $other->production_id === $production->id ? ", $other->roll" : ', of another production',
                ),
                'Give this card another roll name, or change where cards land.',
            );
        }
    }
}
