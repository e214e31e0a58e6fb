<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Sequences\ClipSource;
use App\Models\CardFile;
use App\Models\Clip;
use App\Models\Production;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Exchange\Edl\ShortReels;
use Cartella\Core\Exchange\Relink\Candidate;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;

/** The clips of a production that the events of a list may mean, asked for by what the list says: marks, hashes, reels, names. */
final class Candidates
{
    /** Values of one question to the database. */
    private const AT_ONCE = 1000;

    /** @return list<Candidate> */
    public static function of(Production $production, Sequence $sequence): array
    {
        $ids = $reels = $names = $hashes = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $ids[$item->source->id] = true;
                $reels[(string) $item->source->reel] = true;
                $hash = $item->metadata['hash'] ?? null;
                if (is_string($hash)) {
                    $hashes[$hash] = true;
                }
                foreach ([$item->name, $item->source->name, basename((string) $item->source->path)] as $name) {
                    foreach (self::spellings($name) as $spelling) {
                        $names[$spelling] = true;
                    }
                }
            }
        }
        unset($reels[''], $names['']);
        $found = new Collection();
        $also = static function (array $values, callable $where) use (&$found, $production): void {
            foreach (array_chunk(array_map(strval(...), array_keys($values)), self::AT_ONCE) as $some) {
                $query = self::clips($production);
                $where($query, $some);
                $found = $found->union($query->get()->keyBy('id'));
            }
        };
        $also(
            array_filter($ids, static fn(string|int $id): bool => strlen((string) $id) === 26, ARRAY_FILTER_USE_KEY),
            static fn($query, $some) => $query->whereIn('ulid', $some),
        );
        $also(
            $names,
            static fn($query, $some) => $query->where(static fn($any) => $any->whereIn('name', $some)->orWhereIn('label', $some)),
        );
        $also($reels, static fn($query, $some) => $query->whereHas('card', static fn($card) => self::onReels($card, $some)));
        $byHash = self::hashes($production, array_map(strval(...), array_keys($hashes)));
        $also(
            array_flip(array_map(strval(...), array_keys($byHash))),
            static fn($query, $some) => $query->whereIn('clips.id', array_map(intval(...), $some)),
        );

        // The card's own word for a file goes with every clip that is there anyway.
        return $found->map(static fn(Clip $clip): Candidate => self::candidate($clip, $byHash[$clip->id] ?? []))->values()->all();
    }

    /** @param  list<string>  $hashes */
    public static function candidate(Clip $clip, array $hashes = [], ?string $reel = null): Candidate
    {
        $source = ClipSource::of($clip, $clip->production->rate());
        if ($reel !== null) {
            $source = new Source(
                $source->id,
                $source->name,
                $source->path,
                $reel,
                $source->startTicks,
                $source->durationTicks,
                $source->rate,
            );
        }

        return new Candidate(
            $source,
            $clip->isSound(),
            array_values(
                array_filter([$clip->name, $clip->label, basename($clip->path), ($clip->card->roll ?? 'import') . '_' . $clip->name]),
            ),
            $hashes,
            $clip->card === null ? 'import ' . dirname($clip->path) : 'card ' . $clip->card->id,
            $clip->start_ticks !== null,
        );
    }

    /** @return Builder<Clip> */
    public static function clips(Production $production): Builder
    {
        return Clip::query()
            ->with(['card', 'production'])
            ->where('clips.production_id', $production->id)
            ->whereNull('clips.away_at')
            ->whereIn('clips.kind', ['picture', 'sound'])
            ->whereNotNull('clips.duration_ticks')
            ->where('clips.duration_ticks', '>', 0);
    }

    /**
     * Cards by their rolls, also where a list could only write the first eight letters.
     *
     * @param  Builder<\App\Models\Card>  $cards
     * @param  list<string>  $reels
     */
    private static function onReels(Builder $cards, array $reels): void
    {
        $cards->where(static function (Builder $any) use ($reels): void {
            $any->whereIn('roll', $reels);
            foreach ($reels as $reel) {
                if (strlen($reel) === ShortReels::LENGTH) {
                    $any->orWhere('roll', 'like', addcslashes($reel, '%_\\') . '%');
                }
            }
        });
    }

    /**
     * @param  list<string>  $hashes  such as `xxh128:…`
     * @return array<int, list<string>> by clip
     */
    private static function hashes(Production $production, array $hashes): array
    {
        $found = [];
        foreach (array_chunk($hashes, self::AT_ONCE) as $some) {
            $values = array_map(static fn(string $hash): string => explode(':', $hash, 2)[1] ?? $hash, $some);
            $files = CardFile::query()
                ->join('cards', 'cards.id', '=', 'card_files.card_id')
                ->join('clips', static fn($join) => $join->on('clips.card_id', '=', 'cards.id')->on('clips.path', '=', 'card_files.path'))
                ->where('cards.production_id', $production->id)
                ->whereIn('card_files.hash', $values)
                ->get(['clips.id', 'card_files.algorithm', 'card_files.hash']);
            foreach ($files as $file) {
                $found[(int) $file->id][] = $file->algorithm . ':' . $file->hash;
            }
        }

        return $found;
    }

    /** @return list<string> a name as it is, without its extension, and without what a package puts before and behind it */
    private static function spellings(string $name): array
    {
        $plain = (string) preg_replace('/\.[A-Za-z0-9]{2,4}\z/', '', $name);
        $all = [$name, $plain, (string) preg_replace('/_\d{1,2}\z/', '', $plain)];
        foreach ([$plain, $all[2]] as $one) {
            for ($at = strpos($one, '_'); $at !== false; $at = strpos($one, '_', $at + 1)) {
                $all[] = substr($one, $at + 1);
            }
        }

        return array_values(array_unique(array_filter($all, static fn(string $one): bool => $one !== '' && mb_strlen($one) <= 200)));
    }
}
