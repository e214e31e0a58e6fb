<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Process;

/**
 * Offers the frames of a picture at which a slate closes or a light flashes: something moves in one frame that stood
 * still before and stands still after.
 *
 * Looks at each frame as 64 by 36 grey values. A frame's change is the mean of its largest changes, so that a clapper
 * stick counts as much as a whole picture. Cost: one decoding, a few numbers a frame kept.
 */
final class Flashes
{
    private const WIDTH = 64;

    private const HEIGHT = 36;

    /** The share of the picture whose changes count: its most changed eightieth. */
    private const MOST = 28;

    /** Frames on each side that a change stands out from. */
    private const AROUND = 12;

    private const OVER = 2.5;

    private const LEAST = 6.0;

    /** Frames of one movement follow each other this closely. */
    private const TOGETHER = 3;

    /** Share of a change that is undone in the next frame by which it was a flash: what came is gone again. */
    private const UNDONE = 0.35;

    /** How much more a change that ends a movement counts than one out of nothing, such as a slate that is taken away. */
    private const ENDS_A_MOTION = 4;

    private const CERTAIN = 60;

    private const LIMIT = 20;

    /**
     * @return list<array{frame: int, strength: float}> frames from 0, the strongest first; strength 0 to 1
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode the picture
     */
    public static function ofFile(string $path): array
    {
        $size = self::WIDTH * self::HEIGHT;
        $rest = '';
        $before = $beforeThat = null;
        $changes = $lasting = [];
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input($path),
                '-map',
                '0:v:0',
                '-fps_mode',
                'passthrough',
                '-vf',
                sprintf('scale=%d:%d:flags=area,format=gray', self::WIDTH, self::HEIGHT),
                '-f',
                'rawvideo',
                '-',
            ],
            static function (string $piece) use (&$rest, &$before, &$beforeThat, &$changes, &$lasting, $size): void {
                $rest .= $piece;
                for ($at = 0; strlen($rest) - $at >= $size; $at += $size) {
                    $frame = unpack('C*', substr($rest, $at, $size)) ?: [];
                    $changes[] = $before === null ? 0.0 : self::change($before, $frame);
                    $isChange = count($changes) > 1 && $changes[count($changes) - 2] >= self::LEAST;
                    $lasting[] =
                        $isChange && $before !== null && $beforeThat !== null ? self::lasting($beforeThat, $before, $frame) : 255.0;
                    [$beforeThat, $before] = [$before, $frame];
                }
                $rest = substr($rest, $at);
            },
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $path, $run['error']);
        }

        return self::standingOut($changes, $lasting);
    }

    /**
     * @param  list<float>  $changes  of each frame against the one before
     * @param  list<float>  $lasting  what of the change before is still there in each frame
     * @return list<array{frame: int, strength: float}>
     */
    private static function standingOut(array $changes, array $lasting): array
    {
        $runs = [];
        foreach ($changes as $frame => $change) {
            $around = [
                ...array_slice($changes, max(0, $frame - self::AROUND), min(self::AROUND, $frame)),
                ...array_slice($changes, $frame + 1, self::AROUND),
            ];
            sort($around);
            $usual = ($around[(int) (count($around) * 0.75)] ?? 0.0) + 1.0;
            if ($change < self::LEAST || $change <= self::OVER * $usual) {
                continue;
            }
            $last = array_key_last($runs);
            if ($last === null || $frame - $runs[$last][count($runs[$last]) - 1]['frame'] > self::TOGETHER) {
                $runs[] = [];
                $last = array_key_last($runs);
            }
            $runs[$last][] = ['frame' => $frame, 'over' => $change / $usual];
        }
        $found = [];
        foreach ($runs as $run) {
            $most = max(array_column($run, 'over'));
            // A stick that falls moves for some frames and stands where it has closed: the last strong one of its run.
            $closing = array_values(array_filter($run, static fn(array $one): bool => $one['over'] >= 0.7 * $most));
            $frame = $closing[count($closing) - 1]['frame'];
            // A light that was on for one frame is that frame, and not the one in which it is off again.
            $isFlash = $frame > 0 && $lasting[$frame] <= self::UNDONE * min($changes[$frame], $changes[$frame - 1]);
            $found[] = [
                'frame' => $isFlash ? $frame - 1 : $frame,
                'strength' => round(min(1.0, ($most * (count($run) > 1 ? self::ENDS_A_MOTION : 1)) / self::CERTAIN), 3),
            ];
        }
        usort($found, static fn(array $x, array $y): int => $y['strength'] <=> $x['strength'] ?: $x['frame'] <=> $y['frame']);

        return array_slice($found, 0, self::LIMIT);
    }

    /**
     * What is left, a frame later, of a change: of those parts of the picture that changed most. What moves elsewhere does
     * not count.
     *
     * @param  array<int, int>  $before
     * @param  array<int, int>  $then
     * @param  array<int, int>  $now
     */
    private static function lasting(array $before, array $then, array $now): float
    {
        $changes = [];
        foreach ($then as $at => $value) {
            $changes[$at] = abs($value - $before[$at]);
        }
        arsort($changes);
        $sum = 0;
        foreach (array_keys(array_slice($changes, 0, self::MOST, true)) as $at) {
            $sum += abs($now[$at] - $before[$at]);
        }

        return $sum / self::MOST;
    }

    /**
     * @param  array<int, int>  $before
     * @param  array<int, int>  $now
     */
    private static function change(array $before, array $now): float
    {
        $counts = array_fill(0, 256, 0);
        foreach ($now as $at => $value) {
            $change = $value - $before[$at];
            $counts[$change < 0 ? -$change : $change]++;
        }
        $left = self::MOST;
        $sum = 0;
        for ($change = 255; $change > 0 && $left > 0; $change--) {
            $take = min($left, $counts[$change]);
            $sum += $take * $change;
            $left -= $take;
        }

        return $sum / self::MOST;
    }
}
