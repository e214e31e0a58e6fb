<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Sequences\SequenceStore;
use App\Models\Production;
use App\Models\StoredSequence;
use App\Models\User;

/** The lists of a production that came back, newest first, with how much of each is linked. */
final class ReceivedLists
{
    public function __construct(private readonly SequenceStore $store) {}

    /** @return list<array<string, mixed>> */
    public function of(Production $production): array
    {
        $lists = ReceiveList::lists($production)->limit(50)->get();
        $people = User::query()
            ->whereIn('id', $lists->pluck('user_id')->filter())
            ->pluck('name', 'id');

        return $lists
            ->map(function (StoredSequence $one) use ($people): array {
                $cut = $this->store->read($one);
                $from = $cut->metadata[ReceiveList::KEY] ?? [];

                return [
                    'ulid' => $one->ulid,
                    'name' => $one->name,
                    'file' => (string) ($from['file'] ?? ''),
                    'format' => (string) ($from['format'] ?? 'edl'),
                    'by' => $people[$one->user_id] ?? null,
                    'at' => $one->created_at?->toIso8601String(),
                ] + ReceivedEvents::counts($cut);
            })
            ->all();
    }
}
