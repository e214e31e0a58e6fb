<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Edl;

use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Speed;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/**
 * What the events of a list read: one source for each reel, name and file, from the first label used to the last. How long
 * the material is a list does not say.
 *
 * @internal
 */
final class EdlSources
{
    /** @var array<string, Source> */
    private array $sources = [];

    /** @var array<int, array{string, Speed, int}> by the event: its source, its speed, and where it begins to read, ticks since midnight */
    private array $read = [];

    /** @param  list<EdlEvent>  $events */
    public function __construct(private readonly FrameRate $rate, array $events)
    {
        $spans = [];
        foreach ($events as $event) {
            if ($event->isBlack()) {
                continue;
            }
            $key = implode("\n", [$event->reelName() ?? '', $event->name(), $event->file ?? '']);
            $speed = $this->speed($event);
            // Backwards it begins at the later of its labels.
            $begin = Ticks::ofFrames($speed->num < 0 ? max($event->sourceIn, $event->sourceOut) : $event->sourceIn, $rate);
            $end = $begin + $speed->ofSource(Ticks::ofFrames($event->frames(), $rate));
            $day = $rate->labelsPerDay() * $rate->ticksPerFrame();
            $low = min($begin, $end);
            if (isset($spans[$key]) && $low < $spans[$key]['from'] - intdiv($day, 2)) {
                [$begin, $end, $low] = [$begin + $day, $end + $day, $low + $day];
            }
            $high = max($begin, $end, $low + $rate->ticksPerFrame());
            $spans[$key] = [
                'from' => min($low, $spans[$key]['from'] ?? $low),
                'to' => max($high, $spans[$key]['to'] ?? $high),
                'event' => $spans[$key]['event'] ?? $event,
            ];
            $this->read[spl_object_id($event)] = [$key, $speed, $begin];
        }
        foreach ($spans as $key => ['from' => $from, 'to' => $to, 'event' => $event]) {
            $reel = $event->reelName();
            $this->sources[$key] = new Source(
                implode('/', array_filter([$reel, $event->file ?? $event->name()], static fn(?string $one): bool => $one !== null)),
                $event->name(),
                $event->file,
                $reel,
                $from,
                $to - $from,
                $rate,
            );
        }
    }

    /** @return array{Source, int} and where the event begins to read it, ticks from its first frame */
    public function of(EdlEvent $event): array
    {
        [$key, , $begin] = $this->read[spl_object_id($event)];

        return [$this->sources[$key], $begin - $this->sources[$key]->startTicks];
    }

    public function speedOf(EdlEvent $event): Speed
    {
        return $this->read[spl_object_id($event)][1];
    }

    /**
     * The fraction that the frames a second of an `M2` line mean: exactly if it is one of small numbers, else the simplest one
     * that would be written so.
     */
    private function speed(EdlEvent $event): Speed
    {
        if ($event->fps === null) {
            return new Speed();
        }
        [$whole, $part] = explode('.', ltrim($event->fps, '+-') . '.');
        $ones = 10 ** strlen($part);
        $written = (int) ($whole . $part);
        $sign = $event->fps[0] === '-' ? -1 : 1;
        if ($written === 0) {
            return new Speed(0, 1);
        }
        // The list's own rate is often written as its whole number.
        foreach ([[$this->rate->nominal, 1], [$this->rate->num, $this->rate->den]] as [$num, $den]) {
            $exact = self::exact($written * $den, $ones * $num);
            if ($exact !== null) {
                return new Speed($sign * $exact[0], $exact[1]);
            }
        }
        $fps = $this->rate->num / $this->rate->den;
        [$num, $den] = self::simplest(($written - 1) / $ones / $fps, ($written + 1) / $ones / $fps);

        return new Speed($sign * $num, $den);
    }

    /** @return array{int, int}|null in lowest terms, if they are small enough for a speed */
    private static function exact(int $num, int $den): ?array
    {
        [$a, $b] = [$num, $den];
        while ($b !== 0) {
            [$a, $b] = [$b, $a % $b];
        }
        [$num, $den] = [intdiv($num, $a), intdiv($den, $a)];

        return max($num, $den) <= Speed::LARGEST ? [$num, $den] : null;
    }

    /** @return array{int, int} the fraction of the smallest numbers between two values, as far as a speed goes */
    private static function simplest(float $low, float $high): array
    {
        for ($den = 1; $den <= Speed::LARGEST; $den++) {
            $num = (int) ceil($low * $den);
            if ($num >= 1 && $num <= $high * $den && $num <= Speed::LARGEST) {
                return [$num, $den];
            }
        }

        return $low < 1 ? [1, Speed::LARGEST] : [Speed::LARGEST, 1];
    }
}
