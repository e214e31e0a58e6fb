<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Models\Card;
use App\Models\Clip;
use Cartella\Core\Media\FoundBy;
use Cartella\Core\Media\MediaInfo;
use Cartella\Core\Media\Reconnect;
use Cartella\Core\Media\Traits;
use Illuminate\Support\Facades\DB;

/** Clips whose media went and come back with a card: those that were taken away, and those of whose card no copy can be reached. */
final class Returned
{
    /** Clips that are looked through at once. */
    private const ROWS = 1000;

    public function __construct(private readonly Stores $stores) {}

    /**
     * @param  list<array{layout: string, parts: non-empty-list<string>, sidecars: list<string>,
     *     infos: non-empty-list<MediaInfo>}>  $recordings
     * @return array<int, array{clip: int, by: FoundBy, was: string}> by the number of the recording; the clip's id, and the roll it was of
     */
    public function of(Card $card, array $recordings): array
    {
        $known = Clip::query()->where('card_id', $card->id)->pluck('path_hash')->flip();
        $new = array_filter($recordings, static fn(array $recording): bool => !$known->has(hash('xxh128', $recording['parts'][0])));
        $gone = $new === [] ? [] : $this->gone($card);
        if ($gone === []) {
            return [];
        }
        $hashes = self::hashes([$card->id]);
        $came = array_map(
            static fn(array $recording): Traits => new Traits(
                pathinfo($recording['parts'][0], PATHINFO_FILENAME),
                self::all($hashes[$card->id] ?? [], $recording['parts']),
                $recording['infos'][0]->ixml->tape ?? $recording['infos'][0]->tape,
                $recording['infos'][0]->startTicks,
                array_sum(array_map(static fn(MediaInfo $part): int => (int) $part->durationTicks, $recording['infos'])) ?: null,
            ),
            $new,
        );
        $rolls = Card::query()->where('production_id', $card->production_id)->pluck('roll', 'id');
        $found = [];
        foreach (Reconnect::match(array_column($gone, 'traits', 'id'), $came) as $number => ['gone' => $id, 'by' => $by]) {
            $found[(int) $number] = ['clip' => (int) $id, 'by' => $by, 'was' => (string) ($rolls[$gone[$id]['card']] ?? '')];
        }

        return $found;
    }

    /**
     * Clips of a card that came back.
     *
     * @return list<array{clip: string, name: string, by: string, words: string, was: string, at: string}>
     */
    public static function told(Card $card): array
    {
        return $card
            ->clips()
            ->whereNotNull('found')
            ->orderBy('name')
            ->limit(500)
            ->get(['ulid', 'name', 'label', 'found'])
            ->map(static fn(Clip $clip): array => ['clip' => $clip->ulid, 'name' => $clip->title(), ...self::way($clip) ?? []])
            ->values()
            ->all();
    }

    /** @return array{by: string, words: string, was: string, at: string}|null how a clip's media were found again */
    public static function way(Clip $clip): ?array
    {
        $by = FoundBy::tryFrom($clip->found['by'] ?? '');

        return $by === null
            ? null
            : ['by' => $by->value, 'words' => $by->words(), 'was' => $clip->found['was'], 'at' => $clip->found['at']];
    }

    /** @return array<int, array{id: int, card: int|null, traits: Traits}> by the clip's id */
    private function gone(Card $card): array
    {
        // Of a card that was never whole the clips come from its own next try. One that is only not connected now is known by more than
        // a name: cameras use theirs again.
        $lost = Card::query()
            ->with(['copies', 'production'])
            ->where('production_id', $card->production_id)
            ->whereKeyNot($card->id)
            ->get()
            ->filter(fn(Card $other): bool => $other->state !== 'copying' && $this->stores->folderOf($other) === null)
            ->modelKeys();
        $gone = [];
        Clip::query()
            ->where('production_id', $card->production_id)
            ->where(static fn($clip) => $clip->whereNotNull('away_at')->orWhereIntegerInRaw('card_id', $lost))
            ->select(['id', 'card_id', 'name', 'path', 'facts', 'start_ticks', 'duration_ticks', 'away_at'])
            ->chunkById(self::ROWS, static function ($clips) use (&$gone): void {
                $hashes = self::hashes($clips->pluck('card_id')->filter()->unique()->values()->all());
                foreach ($clips as $clip) {
                    $gone[$clip->id] = [
                        'id' => $clip->id,
                        'card' => $clip->card_id,
                        'traits' => new Traits(
                            $clip->away_at === null ? '' : $clip->name,
                            self::all($hashes[$clip->card_id] ?? [], $clip->paths()),
                            $clip->facts['tape'] ?? null,
                            $clip->start_ticks,
                            $clip->duration_ticks,
                        ),
                    ];
                }
            });

        return $gone;
    }

    /**
     * @param  array<string, string>  $hashes  by path
     * @param  list<string>  $paths
     * @return list<string> of all of them, or none where one is not known
     */
    private static function all(array $hashes, array $paths): array
    {
        $own = array_map(static fn(string $path): ?string => $hashes[hash('xxh128', $path)] ?? null, $paths);

        return in_array(null, $own, true) ? [] : array_values(array_filter($own, is_string(...)));
    }

    /**
     * @param  list<int>  $cards
     * @return array<int, array<string, string>> `algorithm:hash` by the hash of the path, by card
     */
    private static function hashes(array $cards): array
    {
        $hashes = [];
        foreach (
            DB::table('card_files')
                ->whereIntegerInRaw('card_id', $cards)
                ->whereNotNull('hash')
                ->get(['card_id', 'path_hash', 'algorithm', 'hash'])
            as $file
        ) {
            $hashes[(int) $file->card_id][$file->path_hash] = "$file->algorithm:$file->hash";
        }

        return $hashes;
    }
}
