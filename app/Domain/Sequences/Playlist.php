<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Domain\Lineup\Drift;
use App\Domain\Lineup\SoundsUnder;
use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\StoredSequence;
use App\Models\Take;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Media\ChannelNames;
use Illuminate\Support\Collection;

/**
 * What of a sequence plays when: pieces of picture, and under them the sound. A sequence that holds no sound of its own, such as a
 * reel, has that of the line-up as it is now: the recorders' where they ran, else the camera's own.
 */
final readonly class Playlist
{
    /**
     * @param  list<PicturePiece>  $pictures  in their order
     * @param  list<SoundPiece>  $sounds  in their order
     */
    private function __construct(public StoredSequence $stored, public Sequence $sequence, public array $pictures, public array $sounds) {}

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
            ->with(['placement', 'device.look', 'look', 'card', 'production'])
            ->get()
            ->keyBy('ulid');
        $takes = Take::query()
            ->where('production_id', $stored->production_id)
            ->whereIn('ulid', array_map(strval(...), array_keys($takes)))
            ->get()
            ->keyBy('ulid');
        $pictures = $laid = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->enabled ? $track->items : [] as $item) {
                $clip = $clips[$item->source->id] ?? null;
                // A clip that is gone leaves its place empty.
                if ($clip === null || !$item->enabled) {
                    continue;
                }
                $take = $takes[(string) ($item->metadata['take'] ?? '')] ?? null;
                if ($track->kind === TrackKind::Picture) {
                    $pictures[] = new PicturePiece(
                        $clip,
                        $take,
                        $item->name,
                        $item->recordStartTicks,
                        $item->durationTicks,
                        $item->sourceStartTicks,
                    );
                } else {
                    $laid[] = self::ownSound($clip, $take, $item);
                }
            }
        }
        $hasSound = array_filter($sequence->tracks, static fn($track): bool => $track->kind === TrackKind::Sound) !== [];

        return new self($stored, $sequence, $pictures, self::inOrder($hasSound ? $laid : self::lineup($pictures)));
    }

    /**
     * @param  list<PicturePiece>  $pictures
     * @return list<SoundPiece>
     */
    private static function lineup(array $pictures): array
    {
        $days = array_values(array_unique(array_map(static fn(PicturePiece $piece): int => $piece->clip->shoot_day_id, $pictures)));
        /** @var array<int, Windows> $windows */
        $windows = Clip::query()
            ->with(['placement', 'card', 'production'])
            ->whereIn('shoot_day_id', $days)
            ->where('kind', 'sound')
            ->whereNull('import_kind')
            ->get()
            ->groupBy('shoot_day_id')
            ->map(static fn(Collection $sounds): Windows => new Windows($sounds))
            ->all();
        $laid = [];
        foreach ($pictures as $picture) {
            $under = isset($windows[$picture->clip->shoot_day_id])
                ? SoundsUnder::of($picture->clip, $windows[$picture->clip->shoot_day_id])
                : [];
            $free = [[$picture->inTicks, $picture->inTicks + $picture->durationTicks]];
            foreach ($under as $piece) {
                $from = max($picture->inTicks, $piece['from']);
                $to = min($picture->inTicks + $picture->durationTicks, $piece['to']);
                if ($from < $to) {
                    $laid[] = self::under($picture, $piece['sound'], $from, $to);
                    $free = self::without($free, $from, $to);
                }
            }
            if ($picture->clip->channels !== null && $picture->clip->channels !== []) {
                foreach ($free as [$from, $to]) {
                    $laid[] = new SoundPiece(
                        $picture->clip,
                        $picture->take,
                        $picture->name,
                        $picture->atTicks + $from - $picture->inTicks,
                        $to - $from,
                        $from,
                        self::usual($picture->clip),
                        0.0,
                    );
                }
            }
        }

        return $laid;
    }

    private static function under(PicturePiece $picture, Clip $sound, int $from, int $to): SoundPiece
    {
        $chosen = $picture->take?->listening;
        $channels = $chosen === null ? self::usual($sound) : [];
        foreach ($chosen ?? [] as $index => $choice) {
            if ($choice['on']) {
                $channels[(int) $index] = (float) $choice['gain_db'];
            }
        }

        return new SoundPiece(
            $sound,
            $picture->take,
            trim(($picture->take?->label() ?? '') . ' ' . $sound->title()),
            $picture->atTicks + $from - $picture->inTicks,
            $to - $from,
            $picture->clip->placement->start_ticks + $from - $sound->placement->start_ticks,
            $channels,
            Drift::between($picture->clip, $sound),
        );
    }

    private static function ownSound(Clip $clip, ?Take $take, Item $item): SoundPiece
    {
        $chosen = $item->metadata['channels'] ?? null;

        return new SoundPiece(
            $clip,
            $take,
            $item->name,
            $item->recordStartTicks,
            $item->durationTicks,
            $item->sourceStartTicks,
            is_array($chosen) ? array_map(floatval(...), $chosen) : self::usual($clip),
            0.0,
        );
    }

    /** @return array<int, float> the channels that are heard when nobody chose any */
    private static function usual(Clip $clip): array
    {
        return array_fill_keys(ChannelNames::heard($clip->channels ?? []), 0.0);
    }

    /**
     * @param  list<array{int, int}>  $free
     * @return list<array{int, int}>
     */
    private static function without(array $free, int $from, int $to): array
    {
        $left = [];
        foreach ($free as [$start, $end]) {
            foreach ([[$start, min($end, $from)], [max($start, $to), $end]] as [$a, $b]) {
                if ($a < $b) {
                    $left[] = [$a, $b];
                }
            }
        }

        return $left;
    }

    /**
     * @param  list<SoundPiece>  $pieces
     * @return list<SoundPiece>
     */
    private static function inOrder(array $pieces): array
    {
        usort($pieces, static fn(SoundPiece $x, SoundPiece $y): int => $x->atTicks <=> $y->atTicks);

        return $pieces;
    }
}
