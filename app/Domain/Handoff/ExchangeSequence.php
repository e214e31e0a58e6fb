<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Sequences\ClipSource;
use App\Domain\Sequences\Playlist;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Take;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Marker;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Collection;

/** A sequence as a package hands it on: media by where the package keeps it, everything known of each take, the looks. */
final class ExchangeSequence
{
    /** @param  callable(Clip): (string|null)  $pathOf  where the package keeps a clip's media; null where it has none */
    public function of(Playlist $playlist, callable $pathOf): Sequence
    {
        $cut = $playlist->sequence;
        $clips = self::clips($playlist);
        $takes = self::takes($playlist);
        $tracks = [];
        foreach ($cut->tracks as $track) {
            $items = [];
            foreach ($track->items as $item) {
                $clip = $clips[$item->source->id] ?? null;
                // What is not here goes on as it is known.
                $items[] =
                    $clip === null
                        ? $item
                        : self::item($item, $clip, $takes[(string) ($item->metadata['take'] ?? '')] ?? null, $cut->rate, $pathOf($clip));
            }
            $tracks[] = $track->with($items);
        }
        $hasSound = array_filter($cut->tracks, static fn(Track $track): bool => $track->kind === TrackKind::Sound) !== [];

        return new Sequence(
            $cut->title,
            $cut->rate,
            $cut->startTicks,
            $hasSound ? $tracks : [...$tracks, ...self::heard($playlist, $pathOf)],
            ['production' => $playlist->stored?->production->name],
        );
    }

    private static function item(Item $item, Clip $clip, ?Take $take, FrameRate $rate, ?string $path): Item
    {
        return new Item(
            $item->name,
            ClipSource::of($clip, $rate, $path),
            $item->sourceStartTicks,
            $item->durationTicks,
            $item->recordStartTicks,
            $item->enabled,
            [...$item->markers, ...$item->speed->isPlain() ? self::markersOf($clip, $item->sourceStartTicks, $item->durationTicks) : []],
            self::facts($take),
            Look::of($clip)?->cdl() ?? $item->look,
            $item->speed,
            $item->transition,
            ending: $item->ending,
        );
    }

    /**
     * The recordings under a reel, which has no sound of its own; that of a picture goes with the picture itself.
     *
     * @param  callable(Clip): (string|null)  $pathOf
     * @return list<Track>
     */
    private static function heard(Playlist $playlist, callable $pathOf): array
    {
        $items = [];
        foreach ($playlist->sounds as $piece) {
            if (!$piece->clip->isPicture()) {
                $items[] = new Item(
                    $piece->name,
                    ClipSource::of($piece->clip, $playlist->sequence->rate, $pathOf($piece->clip)),
                    $piece->inTicks,
                    $piece->durationTicks,
                    $piece->atTicks,
                    markers: self::markersOf($piece->clip, $piece->inTicks, $piece->durationTicks),
                    metadata: self::facts($piece->take),
                );
            }
        }

        return self::laid(TrackKind::Sound, 'A', $items);
    }

    /** @return array<string, Clip> by ULID, those that are off among them */
    private static function clips(Playlist $playlist): array
    {
        $ids = [];
        foreach ($playlist->sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $ids[$item->source->id] = true;
            }
        }

        return Clip::query()
            ->where('production_id', $playlist->stored?->production_id)
            ->whereIn('ulid', array_map(strval(...), array_keys($ids)))
            ->with(['card', 'device.look', 'look', 'markers', 'production'])
            ->get()
            ->keyBy('ulid')
            ->all();
    }

    /** @return array<string, Take> by ULID */
    private static function takes(Playlist $playlist): array
    {
        $takes = [];
        foreach ($playlist->pictures as $piece) {
            if ($piece->take !== null) {
                $takes[$piece->take->ulid] = $piece->take;
            }
        }
        (new Collection(array_values($takes)))->loadMissing('production');

        return $takes;
    }

    /**
     * Items on as many tracks as they need: two recorders ran at once.
     *
     * @param  list<Item>  $items
     * @return list<Track>
     */
    private static function laid(TrackKind $kind, string $name, array $items): array
    {
        usort($items, static fn(Item $x, Item $y): int => $x->recordStartTicks <=> $y->recordStartTicks);
        $lanes = [];
        foreach ($items as $item) {
            $lane = 0;
            while (isset($lanes[$lane]) && end($lanes[$lane])->recordEndTicks() > $item->recordStartTicks) {
                $lane++;
            }
            $lanes[$lane][] = $item;
        }

        return array_map(
            static fn(array $own, int $lane): Track => new Track($kind, $lane === 0 ? $name : $name . ($lane + 1), $own),
            $lanes,
            array_keys($lanes),
        );
    }

    /** @return list<Marker> what is marked in the stretch of a clip that is shown or heard, from where that begins */
    public static function markersOf(Clip $clip, int $inTicks, int $durationTicks): array
    {
        $found = [];
        foreach ($clip->markers as $one) {
            $begin = max(0, $one->in_ticks - $inTicks);
            $end = min($durationTicks, ($one->out_ticks ?? $one->in_ticks + 1) - $inTicks);
            if ($end > $begin) {
                $about = $one->about === null ? '' : $one->about->value . ': ';
                $found[] = new Marker($begin, $one->out_ticks === null ? 0 : $end - $begin, $one->name, trim($about . $one->note, ': '));
            }
        }

        return $found;
    }

    /** @return array<string, mixed> everything that is known of a take, by the fields' keys */
    public static function facts(?Take $take): array
    {
        $facts = [];
        foreach ($take?->production->fields()->all() ?? [] as $field) {
            $value = $take->valueOf($field->key);
            // The slate stands there always; of the rest, what somebody said.
            if (
                $field->type === FieldType::Slate ||
                ($value !== null && $value !== [] && $value !== $field->nothing()) ||
                $field->key === 'status'
            ) {
                $facts[$field->key] = $value;
            }
        }

        return $take === null ? [] : $facts + ['description' => $take->description];
    }
}
