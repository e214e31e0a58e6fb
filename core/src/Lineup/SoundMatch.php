<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup;

/** One clip found along another by their sound, with what makes it believable. */
final readonly class SoundMatch
{
    /** Heights below this are within reach of chance; see docs/line-up.md for the calibration. */
    public const SURE_HEIGHT = 10.0;

    public const USABLE_HEIGHT = 7.5;

    /**
     * @param  int  $offsetTicks  where $b's first sample lies after $a's first sample
     * @param  float  $height  correlation peak in standard deviations of its surroundings
     * @param  float  $runnerUp  the next best height elsewhere for the same pair, 0 when there is none
     * @param  int  $agreeing  windows whose own best place lies on the line
     * @param  float|null  $driftPpm  positive where $b's clock runs fast against $a's; null under 30 s of overlap
     * @param  int|null  $secondTicks  where the runner-up would put $b, after the first sample of $secondIn
     * @param  int  $middleTicks  of $b's own time, where the two were compared on the whole
     * @param  string|null  $secondIn  the other clip of the runner-up; null where it is $a as well
     */
    public function __construct(
        public string $a,
        public string $b,
        public int $offsetTicks,
        public float $height,
        public float $runnerUp,
        public int $agreeing,
        public int $windows,
        public ?float $driftPpm,
        public float $residualTicks,
        public ?int $secondTicks,
        public int $middleTicks = 0,
        public ?string $secondIn = null,
    ) {}

    /** The same match beside a rival in another recording, which leaves less of its lead. */
    public function against(self $rival): self
    {
        $isNext = $rival->height > $this->runnerUp;

        return new self(
            $this->a,
            $this->b,
            $this->offsetTicks,
            $this->height,
            max($this->runnerUp, $rival->height),
            $this->agreeing,
            $this->windows,
            $this->driftPpm,
            $this->residualTicks,
            $isNext ? $rival->offsetTicks : $this->secondTicks,
            $this->middleTicks,
            $isNext ? $rival->a : $this->secondIn,
        );
    }

    /** The same match with the rival that an earlier look at the pair had found in another recording. */
    public function remembering(?self $before): self
    {
        return $before?->secondIn === null
            ? $this
            : $this->against(
                new self($before->secondIn, $this->b, (int) $before->secondTicks, $before->runnerUp, 0.0, 0, 1, null, 0.0, null),
            );
    }

    /** 0 to 1: rises with the peak's height and its lead, and with the share of windows that agree. */
    public function confidence(): float
    {
        $height = max(0.0, min(1.0, ($this->height - 4.0) / 12.0));
        $lead = max(0.0, min(1.0, ($this->height / max(1.0, $this->runnerUp) - 1.0) / 0.8));

        return round(0.5 * $height + 0.25 * $lead + (0.25 * $this->agreeing) / max(1, $this->windows), 3);
    }

    public function isUsable(): bool
    {
        // A song that is played twice fits two places equally well: one of them is shown, and the other one offered.
        return $this->height >= self::USABLE_HEIGHT &&
            ($this->height >= self::SURE_HEIGHT || $this->height >= 1.1 * $this->runnerUp) &&
            $this->agreeing >= 1;
    }

    public function isSure(): bool
    {
        return $this->height >= self::SURE_HEIGHT &&
            $this->height >= ($this->runnerUp < self::SURE_HEIGHT ? 1.4 : 1.6) * $this->runnerUp &&
            $this->agreeing >= 2 &&
            3 * $this->agreeing >= $this->windows;
    }
}
