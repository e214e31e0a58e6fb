<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Edl;

use Cartella\Core\Look\Cdl;

/**
 * One event of a list while its lines are read; labels as frames since midnight, those after a midnight in between a day on.
 *
 * @internal
 */
final class EdlEvent
{
    public ?string $from = null;

    public ?string $to = null;

    public ?string $file = null;

    public ?string $longReel = null;

    public ?string $hash = null;

    /** @var array{list<float>, list<float>, list<float>}|null */
    public ?array $sop = null;

    public ?float $saturation = null;

    public ?Cdl $look = null;

    /** @var list<array{at: int, length: int, name: string, note: string}> */
    public array $marks = [];

    /** @var list<string> */
    public array $comments = [];

    /** Frames a second as they are written, and how many of its digits stand behind the point. */
    public ?string $fps = null;

    /** @param  list<string>  $channels  `V`, `A`, `A2` */
    public function __construct(
        public readonly int $part,
        public readonly int $line,
        public readonly string $number,
        public readonly string $reel,
        public array $channels,
        public readonly string $transition,
        public readonly int $transitionFrames,
        public int $sourceIn,
        public int $sourceOut,
        public int $recordIn,
        public int $recordOut,
    ) {}

    public function isBlack(): bool
    {
        return strtoupper($this->reel) === ShortReels::BLACK && $this->longReel === null;
    }

    public function isCut(): bool
    {
        return $this->transition === '';
    }

    public function frames(): int
    {
        return $this->recordOut - $this->recordIn;
    }

    public function reelName(): ?string
    {
        return $this->longReel ?? (strtoupper($this->reel) === ShortReels::NONE ? null : $this->reel);
    }

    public function name(): string
    {
        // Under a dissolve the first name is that of what goes.
        return $this->to ?? (($this->isCut() ? $this->from : null) ?? ($this->from ?? ($this->file ?? ($this->reelName() ?? 'Untitled'))));
    }

    /** Where the list says it. */
    public function place(): string
    {
        return sprintf('event %s, line %d%s', $this->number, $this->line, $this->part === 1 ? '' : " of file $this->part");
    }
}
