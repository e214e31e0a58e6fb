<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Domain\Lineup\Windows;
use App\Models\Clip;
use App\Models\Take;
use App\Support\Problem;
use Cartella\Core\Cutting\Angles;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * A stretch of a clip as it goes into a cut: its picture, which knows what the other cameras saw at that moment, and the sound that
 * is heard under it by the line-up, each from the first tick of the stretch on. Whole frames of the cut.
 */
final readonly class Material
{
    /**
     * @param  list<Item>  $sounds  in their order
     * @param  int  $lengthTicks  of the whole
     */
    private function __construct(public string $label, public ?Item $picture, public array $sounds, public int $lengthTicks) {}

    /**
     * @param  int  $in  ticks of the clip, as is `$out`, which is exclusive
     * @param  string|null  $angle  the letter of the camera whose picture is wanted; null for the clip's own, or the best there is
     * @param  string|null  $channel  a name that the channels are to have which are heard, such as the character's; where none has, the
     *     usual ones are
     * @param  bool  $seen  whether a picture is wanted where the clip is a recording
     * @param  Windows|null  $beside  the clips of its day, where many stretches of one are asked for; null asks for those beside it
     *
     * @throws Problem if the stretch lies outside the clip, or is shorter than a frame
     */
    public static function of(
        Clip $clip,
        int $in,
        int $out,
        FrameRate $rate,
        ?Take $take = null,
        ?string $angle = null,
        ?string $channel = null,
        bool $seen = true,
        ?Windows $beside = null,
    ): self {
        if ($in < 0 || $out <= $in || $out > $clip->playableTicks()) {
            throw Problem::refused('cut.piece', "That stretch lies outside {$clip->title()}.", 'Choose it again.');
        }
        $take ??= $clip->take;
        [$shown, $in, $out] = $seen ? self::shown($clip, $in, $out, $angle, $beside) : [$clip, $in, $out];
        $frame = $rate->ticksPerFrame();
        $own = $shown->isSeen() ? ($shown->rate() ?? $rate)->ticksPerFrame() : 1;
        $in = intdiv($in, $own) * $own;
        $length = max(1, Ticks::floorDiv($out - $in + intdiv($frame, 2), $frame)) * $frame;
        // No farther than the clip goes.
        $length = min($length, intdiv($shown->playableTicks() - $in, $frame) * $frame);
        if ($length <= 0) {
            throw Problem::refused('cut.short', 'That stretch is shorter than a frame.', 'Choose more of it.');
        }
        $label = trim(($take?->label() ?? '') . ' ' . ($shown->device->letter ?? ''));
        $label = $take === null ? $shown->title() : $label;
        $piece = new PicturePiece($shown, $take, $label, 0, $length, $in);
        $windows = $beside ?? Windows::beside($shown);
        $heard = $shown->isSeen()
            ? HeardUnder::of([$piece], [$windows])
            : [new SoundPiece($shown, $take, $label, 0, $length, $in, HeardUnder::usual($shown), 0.0)];
        $sounds = array_map(static fn(SoundPiece $one): ?Item => self::sound($one, $rate, $take, $channel), $heard);

        return new self(
            $label,
            $shown->isSeen()
                ? new Item(
                    $label,
                    ClipSource::of($shown, $rate),
                    $in,
                    $length,
                    0,
                    metadata: $take === null ? [] : ['take' => $take->ulid],
                    angles: self::angles($shown, $windows, $in, $rate),
                )
                : null,
            array_values(array_filter($sounds)),
            $length,
        );
    }

    /** @return array{Clip, int, int} the picture of a moment and where it is in it; the clip itself where there is none */
    private static function shown(Clip $clip, int $in, int $out, ?string $angle, ?Windows $beside): array
    {
        if ($clip->isSeen() && ($angle === null || $angle === $clip->device?->letter)) {
            return [$clip, $in, $out];
        }
        $best = null;
        $most = 0;
        foreach (($beside ?? Windows::beside($clip))->partners($clip, 'picture') as $picture) {
            $at = $clip->placement->start_ticks - $picture->placement->start_ticks;
            [$from, $to] = [max(0, $in + $at), min((int) $picture->duration_ticks, $out + $at)];
            // The camera that was asked for, as far as it ran; else the one that saw the most of it.
            $weight = $to - $from + ($angle !== null && $picture->device?->letter === $angle && $to > $from ? PHP_INT_MAX >> 2 : 0);
            if ($weight > $most) {
                [$best, $most] = [[$picture, $from, $to], $weight];
            }
        }

        return $best ?? [$clip, $in, $out];
    }

    /** What the other cameras saw of the moment that the first frame shows; null where only one ran. */
    public static function angles(Clip $clip, Windows $windows, int $in, FrameRate $rate): ?Angles
    {
        $letter = $clip->device?->letter;
        $start = $clip->placement?->start_ticks;
        if ($letter === null || $start === null) {
            return null;
        }
        $list = [$letter => ['source' => ClipSource::of($clip, $rate), 'start_ticks' => $start]];
        foreach ($windows->partners($clip, 'picture') as $other) {
            $their = $other->device?->letter;
            $isRolling =
                $start + $in >= $other->placement->start_ticks && $start + $in < $other->placement->start_ticks + $other->duration_ticks;
            // Of a camera that stopped and started again it is the clip that ran at that moment.
            if ($their !== null && $their !== $letter && ($isRolling || !isset($list[$their]))) {
                $list[$their] = ['source' => ClipSource::of($other, $rate), 'start_ticks' => $other->placement->start_ticks];
            }
        }
        ksort($list);

        return count($list) < 2 ? null : new Angles("{$clip->day->ulid} {$clip->placement->group}", $letter, $list);
    }

    /** Its whole frames; null where it has none. */
    private static function sound(SoundPiece $piece, FrameRate $rate, ?Take $take, ?string $channel): ?Item
    {
        $frame = $rate->ticksPerFrame();
        $from = -Ticks::floorDiv(-$piece->atTicks, $frame) * $frame;
        $to = Ticks::floorDiv($piece->atTicks + $piece->durationTicks, $frame) * $frame;
        $in = $piece->inTicks + $from - $piece->atTicks;
        $to = min($to, $from + intdiv((int) $piece->clip->duration_ticks - $in, $frame) * $frame);
        if ($to <= $from || $in < 0) {
            return null;
        }
        $named = $channel === null ? [] : self::called($piece->clip, $channel);

        return new Item(
            trim(($take?->label() ?? '') . ' · ' . ($named === [] ? $piece->clip->title() : $named['name']), ' ·'),
            ClipSource::of($piece->clip, $rate),
            $in,
            $to - $from,
            $from,
            metadata: array_filter([
                'take' => $take?->ulid,
                'channels' => $named === [] ? $piece->channels : [$named['index'] => 0.0],
                'drift_ppm' => $piece->driftPpm,
                'heard' => $named === [] ? null : $channel,
            ]),
        );
    }

    /** @return array{index: int, name: string}|array{} the channel whose name has the word, such as that of a character */
    private static function called(Clip $clip, string $word): array
    {
        $first = mb_strtolower(explode(' ', trim($word))[0]);
        foreach ($first === '' ? [] : $clip->worthHearing() as $channel) {
            if (str_contains(mb_strtolower((string) ($channel['name'] ?? '')), $first)) {
                return ['index' => (int) $channel['index'], 'name' => (string) $channel['name']];
            }
        }

        return [];
    }
}
