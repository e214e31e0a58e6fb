<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Models\Clip;
use App\Models\StoredSequence;
use App\Models\Take;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Shown;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;

/**
 * What of a sequence, or of one clip, plays when: pieces of picture, and under them the sound. A sequence that holds no sound of its
 * own, such as a reel, has that of the line-up as it is now: the recorders' where they ran, else the camera's own.
 */
final readonly class Playlist
{
    /**
     * @param  list<PicturePiece>  $pictures  in their order
     * @param  list<SoundPiece>  $sounds  in their order
     * @param  list<SoundPiece>  $own  the pictures' own sound, in their order
     * @param  list<SoundPiece>  $beside  of a clip by itself: recordings that ran too and are not heard of themselves, in their order
     */
    private function __construct(
        public ?StoredSequence $stored,
        public Sequence $sequence,
        public array $pictures,
        public array $sounds,
        public array $own,
        public array $beside,
    ) {}

    /** One clip by itself, whole: a picture with what is heard under it, a recording with its usual channels. */
    public static function ofClip(Clip $clip): self
    {
        $rate = $clip->rate() ?? $clip->production->rate();
        $length = (int) $clip->duration_ticks;
        $pictures = $clip->isPicture() && $length > 0 ? [new PicturePiece($clip, $clip->take, $clip->title(), 0, $length, 0)] : [];
        $windows = $pictures === [] ? [] : HeardUnder::windows($pictures);
        $sounds =
            $clip->isSound() && $length > 0
                ? [new SoundPiece($clip, $clip->take, $clip->title(), 0, $length, 0, HeardUnder::usual($clip), 0.0)]
                : HeardUnder::of($pictures, $windows);
        $items = $length > 0 ? [new Item($clip->title(), ClipSource::of($clip, $rate), 0, $length, 0)] : [];

        return new self(
            null,
            new Sequence($clip->title(), $rate, (int) $clip->start_ticks, [
                new Track($clip->isSound() ? TrackKind::Sound : TrackKind::Picture, '', $items),
            ]),
            $pictures,
            $sounds,
            HeardUnder::ownOf($pictures),
            HeardUnder::besideOf($pictures, $sounds, $windows),
        );
    }

    public static function of(StoredSequence $stored, Sequence $sequence): self
    {
        $ids = [];
        $takes = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $ids[$item->source->id] = true;
                $takes[(string) ($item->metadata['take'] ?? '')] = true;
            }
        }
        $clips = Clip::query()
            ->where('production_id', $stored->production_id)
            ->whereIn('ulid', array_map(strval(...), array_keys($ids)))
            ->with(['placement', 'device.look', 'look', 'card', 'production', 'markers'])
            ->get()
            ->keyBy('ulid');
        $takes = Take::query()
            ->where('production_id', $stored->production_id)
            ->whereIn('ulid', array_map(strval(...), array_keys($takes)))
            ->get()
            ->keyBy('ulid');
        $takeOf = static fn(Item $item): ?Take => $takes[(string) ($item->metadata['take'] ?? '')] ?? null;
        // A clip that is gone leaves its place empty, or shows what lies under it.
        $isThere = static fn(Item $item): bool => isset($clips[$item->source->id]);
        $pictures = array_map(
            static fn(Item $item): PicturePiece => new PicturePiece(
                $clips[$item->source->id],
                $takeOf($item),
                $item->name,
                $item->recordStartTicks,
                $item->durationTicks,
                $item->sourceStartTicks,
                $item->metadata,
            ),
            Shown::of($sequence, $isThere),
        );
        $laid = [];
        foreach ($sequence->tracks as $number => $track) {
            foreach ($track->enabled && $track->kind === TrackKind::Sound ? $track->items : [] as $item) {
                if ($item->enabled && $isThere($item)) {
                    $laid[] = self::ownSound($clips[$item->source->id], $takeOf($item), $item, $number);
                }
            }
        }
        $hasSound = array_filter($sequence->tracks, static fn($track): bool => $track->kind === TrackKind::Sound) !== [];

        return new self(
            $stored,
            $sequence,
            $pictures,
            $hasSound ? HeardUnder::inOrder($laid) : HeardUnder::of($pictures),
            HeardUnder::ownOf($pictures),
            [],
        );
    }

    private static function ownSound(Clip $clip, ?Take $take, Item $item, int $track): SoundPiece
    {
        $chosen = $item->metadata['channels'] ?? null;

        return new SoundPiece(
            $clip,
            $take,
            $item->name,
            $item->recordStartTicks,
            $item->durationTicks,
            $item->sourceStartTicks,
            is_array($chosen) ? array_map(floatval(...), $chosen) : HeardUnder::usual($clip),
            (float) ($item->metadata['drift_ppm'] ?? 0.0),
            (int) ($item->metadata['fade_in_ticks'] ?? 0),
            (int) ($item->metadata['fade_out_ticks'] ?? 0),
            $track,
            (int) ($item->metadata['gain_millibels'] ?? 0) / 100,
        );
    }
}
