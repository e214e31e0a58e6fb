<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\DB;

/** Tells every open page of a production that something changed; the pages ask for what they show again. */
final class Live
{
    /**
     * @param  'tasks'|'cards'|'bench'|'takes'|'lineup'|'bins'|'reels'|'notes'|'handoffs'|'clips'|'patterns'|'here'  $topic
     * @param  array<string, scalar|null>  $facts
     */
    public static function tell(int $productionId, string $topic, array $facts = []): void
    {
        DB::table('events')->insert([
            'production_id' => $productionId,
            'topic' => $topic,
            'facts' => json_encode((object) $facts, JSON_THROW_ON_ERROR),
        ]);
    }
}
