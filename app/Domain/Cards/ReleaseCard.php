<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Tasks\StartTask;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\Task;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Custody\FolderWalk;

/**
 * Begins to release a card: what can be refused at once is refused here; {@see ReleaseCardJob} looks at the copies and
 * stamps the card.
 */
final class ReleaseCard
{
    /** What a person types when both copies lie on one disk and the card is to be wiped all the same. */
    public const ONE_DISK = 'one disk';

    public function __construct(private readonly StartTask $start, private readonly Stores $stores) {}

    /**
     * @param  string|null  $words  what the person typed, where both copies lie on one disk
     * @return Task|null null when it is released already
     *
     * @throws Problem if the card is not safe, a copy cannot be looked at, or the words are missing
     */
    public function __invoke(Card $card, User $user, ?string $words = null): ?Task
    {
        $card->load('copies');
        if ($card->volume === '') {
            throw Problem::refused('card.dropped', "$card->roll was dropped on a page: there is no card to wipe.", 'Nothing to do.');
        }
        if (!$card->isSafe()) {
            throw Problem::refused(
                'card.unsafe',
                sprintf('%s is not safe to wipe: %d of %d files are verified twice.', $card->roll, $card->verified_files, $card->files),
                'Offload it again until every file is verified on two volumes.',
            );
        }
        if ($card->released_at !== null) {
            return null;
        }
        $there = $this->copiesThere($card);
        if (count($there) < 2) {
            $away = $card->copies
                ->reject(static fn(CardCopy $copy): bool => isset($there[$copy->store]))
                ->map(fn(CardCopy $copy): string => $this->stores->known($card->production)->get($copy->store)->name ?? $copy->store)
                ->implode(' and ');
            throw Problem::refused(
                'card.copy_away',
                sprintf('%s cannot be looked at now: %s is not there, or holds no manifest of it.', $card->roll, $away),
                'Connect the volume, or verify the copies again.',
            );
        }
        if (count(array_unique($there)) < 2 && mb_strtolower(trim((string) $words)) !== self::ONE_DISK) {
            throw Problem::refused(
                'card.one_disk',
                sprintf('Both copies of %s lie on one disk: if it fails, both are gone.', $card->roll),
                sprintf('Copy it to a second disk, or type "%s" to release it all the same.', self::ONE_DISK),
                ['words' => self::ONE_DISK],
            );
        }

        return ($this->start)(
            $card->production,
            $user,
            'release',
            'Release ' . $card->roll,
            ['card' => $card->id, 'words' => $words === null ? null : mb_substr(trim($words), 0, 40)],
            "copies.$card->id",
        );
    }

    /** @return array<string, int> number of the device by the key of the store, of the copies that can be looked at now */
    public function copiesThere(Card $card): array
    {
        $devices = [];
        foreach ($card->copies as $copy) {
            $store = $this->stores->known($card->production)->get($copy->store);
            $folder = $store === null ? null : $store->path . '/' . $copy->path;
            $device = $store?->device();
            if ($device !== null && $copy->isWhole() && is_file($folder . '/' . FolderWalk::HISTORY . '/' . $copy->manifest)) {
                // The folder may be a mount of its own.
                $devices[$copy->store] = @stat($folder)['dev'] ?? $device;
            }
        }

        return $devices;
    }
}
