<?php

declare(strict_types=1);

namespace Cartella\Core\Time;

use Cartella\Core\Time\Exception\InvalidTime;

/**
 * A frame rate as an exact fraction, frames to the second, with its way of counting labels.
 *
 * One of the rates of {@see self::NAMES}. `$dropFrame` says how labels count (SMPTE ST 12-1) and never changes
 * the length of a frame.
 */
final readonly class FrameRate
{
    /** Name to numerator, denominator and nominal whole frames to the second. */
    private const NAMES = [
        '23.976' => [24000, 1001, 24],
        '24' => [24, 1, 24],
        '25' => [25, 1, 25],
        '29.97' => [30000, 1001, 30],
        '30' => [30, 1, 30],
        '47.952' => [48000, 1001, 48],
        '48' => [48, 1, 48],
        '50' => [50, 1, 50],
        '59.94' => [60000, 1001, 60],
        '60' => [60, 1, 60],
        '100' => [100, 1, 100],
        '119.88' => [120000, 1001, 120],
        '120' => [120, 1, 120],
    ];

    private function __construct(public int $num, public int $den, public int $nominal, public string $name, public bool $dropFrame) {}

    /** @throws InvalidTime if the name is not one of the rates, or has `df` where nothing is dropped */
    public static function parse(string $text): self
    {
        $name = $text;
        $drop = false;
        if (str_ends_with($text, 'df')) {
            $name = substr($text, 0, -2);
            $drop = true;
        }
        if (!isset(self::NAMES[$name])) {
            throw InvalidTime::rate($text);
        }
        [$num, $den, $nominal] = self::NAMES[$name];
        $rate = new self($num, $den, $nominal, $name, false);

        return $drop ? $rate->withDropFrame(true) : $rate;
    }

    /** @throws InvalidTime if no known rate equals the fraction */
    public static function ofFraction(int $num, int $den, bool $dropFrame = false): self
    {
        foreach (self::NAMES as $name => [$n, $d, $nominal]) {
            if ($den > 0 && $num * $d === $n * $den) {
                return (new self($n, $d, $nominal, (string) $name, false))->withDropFrame($dropFrame);
            }
        }
        throw InvalidTime::rate($num . '/' . $den);
    }

    /**
     * The known rate within 0.02 % of a measured one: containers round 24000/1001 in many ways, and the nearest
     * two rates lie 0.1 % apart. Null when none is that near.
     */
    public static function near(float $framesPerSecond): ?self
    {
        foreach (self::NAMES as $name => [$n, $d, $nominal]) {
            if (abs(($framesPerSecond * $d) / $n - 1) < 0.0002) {
                return new self($n, $d, $nominal, (string) $name, false);
            }
        }

        return null;
    }

    /** @throws InvalidTime if drop frame is asked for at a rate that has none */
    public function withDropFrame(bool $dropFrame): self
    {
        if ($dropFrame && !$this->allowsDropFrame()) {
            throw InvalidTime::noDropFrame($this->name);
        }

        return new self($this->num, $this->den, $this->nominal, $this->name, $dropFrame);
    }

    public function allowsDropFrame(): bool
    {
        return $this->den === 1001 && ($this->nominal === 30 || $this->nominal === 60);
    }

    /** Labels skipped at the start of each minute but the tenth: 2 at 29.97, 4 at 59.94, else 0. */
    public function droppedPerMinute(): int
    {
        return $this->dropFrame ? intdiv($this->nominal, 15) : 0;
    }

    /** Length of one frame in ticks; whole at every rate, which is why the tick is what it is. */
    public function ticksPerFrame(): int
    {
        return intdiv(Ticks::PER_SECOND * $this->den, $this->num);
    }

    /** Count of labels in 24 hours; a drop-frame day has fewer than a counted-through one. */
    public function labelsPerDay(): int
    {
        return 24 * (3600 * $this->nominal - 54 * $this->droppedPerMinute());
    }

    /** The name as the command writes it, with `df` when labels are dropped. */
    public function label(): string
    {
        return $this->name . ($this->dropFrame ? 'df' : '');
    }

    public function equals(self $other): bool
    {
        return $this->num === $other->num && $this->den === $other->den && $this->dropFrame === $other->dropFrame;
    }
}
