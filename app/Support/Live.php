<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\DB;

/** Tells every open page of a production that something changed; the pages ask for what they show again. */
final class Live
{
    /** The page that is being answered, so that it need not fetch what it changed itself; null in workers. */
    public static ?string $origin = null;

    /** Seconds to wait for others who tell something at the same moment. */
    private const WAIT = 2;

    /**
     * After the transaction it is told in, if there is one: nobody may ask for what is not there yet.
     *
     * @param  array<string, scalar|null>  $facts
     */
    public static function tell(int $productionId, Topic $topic, array $facts = []): void
    {
        $event = [
            'production_id' => $productionId,
            'topic' => $topic->value,
            'facts' => json_encode((object) $facts, JSON_THROW_ON_ERROR),
            'origin' => self::$origin,
        ];
        DB::afterCommit(static fn() => self::write($event));
    }

    /**
     * One after the other, so that numbers come into sight in their order: a reader that is at 12 would never see an 11
     * that was committed later.
     *
     * @param  array<string, mixed>  $event
     */
    private static function write(array $event): void
    {
        $lock = 'cartella.events.' . substr(hash('xxh64', (string) DB::connection()->getDatabaseName()), 0, 8);
        $isFirst = (int) (DB::selectOne('SELECT GET_LOCK(?, ?) AS got', [$lock, self::WAIT])->got ?? 0) === 1;
        try {
            DB::table('events')->insert($event);
        } finally {
            // Kept by a worker that lives on, it would cost everybody else the wait for every event.
            if ($isFirst) {
                DB::select('DO RELEASE_LOCK(?)', [$lock]);
            }
        }
    }
}
