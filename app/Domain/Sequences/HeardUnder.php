<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Domain\Lineup\Drift;
use App\Domain\Lineup\SoundsUnder;
use App\Domain\Lineup\Windows;
use App\Models\Clip;
use Cartella\Core\Media\ChannelNames;
use Illuminate\Support\Collection;

/**
 * What is heard under pictures: the recordings that ran with them by the line-up, as their takes want them heard; where none ran, the
 * camera's own sound. Nothing is made for it: players and packages mix it from the channels.
 */
final class HeardUnder
{
    /**
     * @param  list<PicturePiece>  $pictures
     * @param  array<int, Windows>|null  $windows  what ran beside them, where that is known
     * @return list<SoundPiece> in their order
     */
    public static function of(array $pictures, ?array $windows = null): array
    {
        $windows ??= self::windows($pictures);
        $laid = [];
        foreach ($pictures as $number => $picture) {
            $under = isset($windows[$number]) ? SoundsUnder::of($picture->clip, $windows[$number]) : [];
            $free = [[$picture->inTicks, $picture->inTicks + $picture->durationTicks]];
            foreach ($under as $piece) {
                $from = max($picture->inTicks, $piece['from']);
                $to = min($picture->inTicks + $picture->durationTicks, $piece['to']);
                if ($from < $to) {
                    $laid[] = self::under($picture, $piece['sound'], $from, $to);
                    $free = self::without($free, $from, $to);
                }
            }
            foreach (self::hasSound($picture->clip) ? $free : [] as [$from, $to]) {
                $laid[] = self::own($picture, $from, $to);
            }
        }

        return self::inOrder($laid);
    }

    /**
     * Recordings that ran with the pictures and are not heard of themselves, such as a second recorder's: any of their channels can
     * be heard alone.
     *
     * @param  list<PicturePiece>  $pictures
     * @param  list<SoundPiece>  $heard
     * @param  array<int, Windows>  $windows  what ran beside them
     * @return list<SoundPiece> in their order
     */
    public static function besideOf(array $pictures, array $heard, array $windows): array
    {
        $isHeard = [];
        foreach ($heard as $piece) {
            $isHeard[$piece->clip->id] = true;
        }
        $beside = [];
        foreach ($pictures as $number => $picture) {
            $end = $picture->inTicks + $picture->durationTicks;
            foreach (isset($windows[$number]) ? $windows[$number]->partners($picture->clip, 'sound') : [] as $sound) {
                $at = $sound->placement->start_ticks - $picture->clip->placement->start_ticks;
                [$from, $to] = [max($picture->inTicks, $at), min($end, $at + (int) $sound->duration_ticks)];
                if (!isset($isHeard[$sound->id]) && $from < $to) {
                    $beside[] = self::under($picture, $sound, $from, $to);
                }
            }
        }

        return self::inOrder($beside);
    }

    /**
     * The cameras' own sound, all along.
     *
     * @param  list<PicturePiece>  $pictures
     * @return list<SoundPiece> in their order
     */
    public static function ownOf(array $pictures): array
    {
        return self::inOrder(
            array_map(
                static fn(PicturePiece $piece): SoundPiece => self::own($piece, $piece->inTicks, $piece->inTicks + $piece->durationTicks),
                array_values(array_filter($pictures, static fn(PicturePiece $piece): bool => self::hasSound($piece->clip))),
            ),
        );
    }

    /**
     * The channels that are heard when nobody chose any. Speech is seldom on all of them at once, so that their sum is taken at twice
     * the mean.
     *
     * @return array<int, float> by number from 1, gain in dB
     */
    public static function usual(Clip $clip): array
    {
        $heard = ChannelNames::heard($clip->worthHearing());
        $count = count($heard);

        return array_fill_keys($heard, $count > 2 ? round(20 * log10(2 / $count), 2) : 0.0);
    }

    /**
     * @param  list<SoundPiece>  $pieces
     * @return list<SoundPiece>
     */
    public static function inOrder(array $pieces): array
    {
        usort($pieces, static fn(SoundPiece $x, SoundPiece $y): int => $x->atTicks <=> $y->atTicks);

        return $pieces;
    }

    /**
     * @param  list<PicturePiece>  $pictures
     * @return array<int, Windows> by the piece's number
     */
    public static function windows(array $pictures): array
    {
        if (count($pictures) === 1) {
            return [Windows::beside($pictures[0]->clip)];
        }
        $days = array_values(array_unique(array_map(static fn(PicturePiece $piece): int => $piece->clip->shoot_day_id, $pictures)));
        $byDay = Clip::query()
            ->with(['placement', 'card', 'production'])
            ->whereIn('shoot_day_id', $days)
            ->where('kind', 'sound')
            ->whereNull('import_kind')
            ->get()
            ->groupBy('shoot_day_id')
            ->map(static fn(Collection $sounds): Windows => new Windows($sounds));
        $windows = [];
        foreach ($pictures as $number => $piece) {
            if (isset($byDay[$piece->clip->shoot_day_id])) {
                $windows[$number] = $byDay[$piece->clip->shoot_day_id];
            }
        }

        return $windows;
    }

    private static function hasSound(Clip $clip): bool
    {
        return $clip->channels !== null && $clip->channels !== [];
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

    private static function own(PicturePiece $picture, int $from, int $to): SoundPiece
    {
        return new SoundPiece(
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
}
