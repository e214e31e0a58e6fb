<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\DB;

/** Events in a table, written one after the other. */
final class DatabaseBus implements LiveBus
{
    /** Seconds to wait for others who tell something at the same moment. */
    private const WAIT = 2;

    private const PAGE = 200;

    /**
     * One after the other, so that numbers come into sight in their order: a reader that is at 12 would never see an 11
     * that was committed later.
     */
    public function publish(int $productionId, Topic $topic, array $facts, ?string $origin): void
    {
        $lock = 'cartella.events.' . substr(hash('xxh64', (string) DB::connection()->getDatabaseName()), 0, 8);
        $isFirst = (int) (DB::selectOne('SELECT GET_LOCK(?, ?) AS got', [$lock, self::WAIT])->got ?? 0) === 1;
        try {
            DB::table('events')->insert([
                'production_id' => $productionId,
                'topic' => $topic->value,
                'facts' => json_encode((object) $facts, JSON_THROW_ON_ERROR),
                'origin' => $origin,
            ]);
        } finally {
            // Kept by a worker that lives on, it would cost everybody else the wait for every event.
            if ($isFirst) {
                DB::select('DO RELEASE_LOCK(?)', [$lock]);
            }
        }
    }

    public function last(int $productionId): int
    {
        return (int) DB::table('events')->where('production_id', $productionId)->max('id');
    }

    public function since(int $productionId, int $after): array
    {
        return DB::table('events')
            ->where('production_id', $productionId)
            ->where('id', '>', $after)
            ->orderBy('id')
            ->limit(self::PAGE)
            ->get()
            ->map(
                static fn(object $row): array => [
                    'id' => (int) $row->id,
                    'topic' => $row->topic,
                    'facts' => json_decode($row->facts, true),
                    'origin' => $row->origin,
                ],
            )
            ->all();
    }
}
